import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Flag, words } from "../parts/Flag";
import { ScanKey } from "../parts/ScanKey";
import { packInHand } from "./model";

export interface PackChoiceProps {
  packs: Schemas["Pack"][];
  /** All packs of the crew, to say what is in the hand. */
  rack: Schemas["Pack"][];
  /** Name of the type that they are for. */
  type: string;
  count: number;
  chosen: string[];
  onChange: (ids: string[]) => void;
}

/** Chooses as many packs as the type takes; one more pushes the first out. */
export function PackChoice({ packs, rack, type, count, chosen, onChange }: PackChoiceProps) {
  const scan = (
    <ScanKey
      className="mt-2"
      label="Read the label of the pack in hand"
      onCode={(code) => {
        const got = packInHand(rack, packs, type, code);
        if ("sentence" in got) return got.sentence;
        if (!chosen.includes(got.id)) onChange([...chosen, got.id].slice(-count));
        return undefined;
      }}
    />
  );
  if (packs.length === 0)
    return (
      <>
        <p className="m-0">
          No charged pack fits this type. <Link to="/packs">Go to the rack</Link> and charge or add one.
        </p>
        {scan}
      </>
    );
  const flip = (id: string) =>
    onChange(chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id].slice(-count));
  return (
    <>
      <div className="d-flex flex-wrap gap-2" role="group" aria-label={`Choose ${count}`}>
        {packs.map((p) => (
          <Button
            key={p.id}
            variant={chosen.includes(p.id) ? "primary" : "outline-primary"}
            aria-pressed={chosen.includes(p.id)}
            onClick={() => flip(p.id)}
          >
            <Flag verdict={p.verdict} size={14} />
            <span className="visually-hidden">{words[p.verdict]}</span>
            {p.label} <span className="fig">{p.percent == null ? "? %" : `${Math.round(p.percent)} %`}</span>
            {p.spread_mv != null && <span className="fig">{p.spread_mv} mV</span>}
          </Button>
        ))}
      </div>
      {scan}
    </>
  );
}

import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { useMay } from "../app/session";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";
import { useUnits } from "../parts/units";
import { useFill, type Plan } from "./api";
import { nextFill, sheetOf } from "./model";
import { SecondAndMass } from "./SecondAndMass";

/** The load sheet at the truck: what goes in, ticked as it goes in, seen by a second person, weighed. */
export function LoadLeaf({ p }: { p: Plan }) {
  const u = useUnits();
  const may = useMay()("pilot", "crew");
  const number = nextFill(p);
  const fill = p.fills.find((f) => f.number === number);
  const send = useFill(p.job_id, p.aircraft_id, number);
  const [id] = useState(newId);
  const lines = fill?.lines ?? sheetOf(p);
  const version = fill?.version ?? 0;
  const complete = p.fills.filter((f) => f.complete);
  if (p.version === 0) return <Empty>Keep the plan first; the load sheet follows from it.</Empty>;
  return (
    <div className="stack">
      {send.error && <Problem error={send.error} />}
      {lines.length === 0 ? (
        <Empty>Nothing is left to fill in.</Empty>
      ) : (
        <Sheet
          title={`Fill ${number}: ${(fill?.litres ?? p.loads[0]!.litres).toFixed(1)} ${p.wish.granules ? "kg" : "L"}`}
        >
          <p className="soft">
            For {(fill?.ha ?? p.loads[0]!.ha).toFixed(2)} ha. The order is the label&rsquo;s; wear what it
            asks for.
          </p>
          <ol className="fill-lines">
            {lines.map((l, i) => (
              <li key={i}>
                <Button
                  variant={l.first ? "primary" : "outline-primary"}
                  className="btn-big"
                  aria-pressed={l.first !== ""}
                  disabled={!may || send.isPending}
                  onClick={() => send.mutate({ id, version, line: i })}
                >
                  {l.what}: {l.amount.toFixed(2)} {l.unit}
                </Button>
                <span className="soft">
                  {l.first && `in, ${l.first}`}
                  {l.second && ` · seen by ${l.second}`}
                </span>
              </li>
            ))}
          </ol>
          {may && fill && <SecondAndMass key={version} fill={fill} p={p} />}
        </Sheet>
      )}
      {complete.length > 0 && (
        <Sheet title="Filled">
          <ul className="plain-rows">
            {complete.map((f) => (
              <li key={f.number}>
                <span className="fig">{f.number}</span>
                <span>
                  {f.litres.toFixed(1)} {p.wish.granules ? "kg" : "L"} for {f.ha.toFixed(2)} ha,{" "}
                  {f.mass_kg != null && `${u.show("mass", f.mass_kg)} weighed`}
                </span>
                <span className="soft">
                  {[...new Set(f.lines.flatMap((l) => [l.first, l.second]))].join(", ")}
                </span>
              </li>
            ))}
          </ul>
        </Sheet>
      )}
    </div>
  );
}

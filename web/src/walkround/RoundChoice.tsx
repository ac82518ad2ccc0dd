import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";

interface Props {
  rounds: Schemas["Round"][];
  chosen: string;
  onChoose: (key: Schemas["RoundKey"]) => void;
}

/** Which round of the checklist is walked: those before a flight as large keys, the others below. */
export function RoundChoice({ rounds, chosen, onChoose }: Props) {
  const key = (r: Schemas["Round"], words: string) => (
    <Button
      key={r.key}
      variant={chosen === r.key ? "primary" : "outline-primary"}
      aria-pressed={chosen === r.key}
      onClick={() => onChoose(r.key)}
    >
      {words}
    </Button>
  );
  const others = rounds.filter((r) => !r.check);
  return (
    <>
      <div className="d-flex flex-wrap gap-2">
        {rounds.filter((r) => r.check).map((r) => key(r, `${r.title}: ${r.when}`))}
      </div>
      {others.length > 0 && (
        <>
          <p className="soft mt-3 mb-1">Other rounds</p>
          <div className="d-flex flex-wrap gap-2">{others.map((r) => key(r, r.title))}</div>
          <p className="soft mt-1 mb-0">{others.find((r) => r.key === chosen)?.when}</p>
        </>
      )}
    </>
  );
}

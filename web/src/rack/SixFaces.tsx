import { Photos } from "../parts/Photos";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { Sheet } from "../parts/Sheet";
import { useZone } from "../parts/time";
import { faces, Look } from "./LookAtFaces";

/** The looks at all six faces, and the next one. */
export function SixFaces({ d, may }: { d: Schemas["PackDetail"]; may: boolean }) {
  const z = useZone();
  const [open, setOpen] = useState(false);
  return (
    <Sheet
      at="six-faces"
      title="All six faces"
      aside={
        may && (
          <Button variant="outline-primary" size="sm" onClick={() => setOpen(true)}>
            Look at it now
          </Button>
        )
      }
    >
      {d.looks.length === 0 && (
        <p className="m-0">
          Nobody has put a look on record. A pack that sat charged too long can swell on the one side nobody
          sees.
        </p>
      )}
      <ul className="mb-0 ps-3">
        {d.looks.slice(0, 5).map((l) => (
          <li key={l.id}>
            <span className="fig">{z.date(l.at)}</span>{" "}
            {l.clean
              ? "nothing found"
              : faces
                  .filter((f) => l.faces[f] !== "ok")
                  .map((f) => `${l.faces[f]} on the ${f}`)
                  .join(", ")}
            {l.note && `: ${l.note}`} <span className="soft">({l.by})</span>
            <Photos ids={l.photos} alt={(n) => `Photo ${n} of this look`} />
          </li>
        ))}
      </ul>
      {open && <Look d={d} onClose={() => setOpen(false)} />}
    </Sheet>
  );
}

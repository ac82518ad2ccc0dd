import { Rows } from "../parts/Rows";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { newId } from "../api/client";
import { useMay } from "../parts/session";
import { useAbout } from "../outbox/hooks";
import { Sheet } from "../parts/Sheet";
import { Empty } from "../parts/states";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { nextFill, sheetOf } from "./model";
import { planThing } from "./presses";
import { SecondAndMass } from "./SecondAndMass";
import { usePlanPress } from "./send";

/** The load sheet at the truck: what goes in, ticked as it goes in, seen by a second person, weighed. */
export function LoadLeaf({ p }: { p: Plan }) {
  const u = useUnits();
  const may = useMay()("pilot", "crew");
  const number = nextFill(p);
  const fill = p.fills.find((f) => f.number === number);
  const about = useAbout(planThing(p.job_id, p.aircraft_id));
  const press = usePlanPress(p.job_id, p.aircraft_id);
  const [id] = useState(newId);
  const lines = fill?.lines ?? sheetOf(p);
  const complete = p.fills.filter((f) => f.complete);
  if (p.version === 0) return <Empty>Keep the plan first; the load sheet follows from it.</Empty>;
  return (
    <div className="vstack gap-3">
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
          <ol className="fill-lines vstack gap-2 ps-4">
            {lines.map((l, i) => (
              <li key={i}>
                <Button
                  variant={l.first ? "primary" : "outline-primary"}
                  className="btn-big w-100 justify-content-start text-start"
                  aria-pressed={l.first !== ""}
                  disabled={!may}
                  onClick={() =>
                    press("spray.tick", {
                      fill: id,
                      number,
                      line: i,
                      in: !l.first,
                      what: l.what,
                      amount: l.amount,
                    })
                  }
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
          {may && fill && <SecondAndMass key={number} fill={fill} p={p} waits={about.waiting.length > 0} />}
        </Sheet>
      )}
      {complete.length > 0 && (
        <Sheet title="Filled">
          <Rows cols="110px minmax(0, 1fr) minmax(0, 1.2fr)">
            {complete.map((f) => (
              <ListGroup.Item as="li" key={f.number}>
                <span className="fig">{f.number}</span>
                <span>
                  {f.litres.toFixed(1)} {p.wish.granules ? "kg" : "L"} for {f.ha.toFixed(2)} ha,{" "}
                  {f.mass_kg != null && `${u.show("mass", f.mass_kg)} weighed`}
                </span>
                <span className="soft">
                  {[...new Set(f.lines.flatMap((l) => [l.first, l.second]))].join(", ")}
                </span>
              </ListGroup.Item>
            ))}
          </Rows>
        </Sheet>
      )}
    </div>
  );
}

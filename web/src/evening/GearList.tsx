import { zodResolver } from "@hookform/resolvers/zod";
import { levelForm } from "./model";
import { Rows } from "../parts/Rows";
import { useCheckGear } from "./api";
import { Explained } from "../parts/Explained";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { NumberField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";
import { useAge } from "../parts/time";
import { LookAtGear } from "./LookAtGear";
import { Tick } from "./Tick";
import { gearKinds, EditGear } from "./EditGear";

type Gear = Schemas["Gear"];

/** What else holds a charge: any one of them dying ends the flight. */
export function GearList({ e }: { e: Schemas["Evening"] }) {
  const may = useMay();
  const age = useAge();
  const [edit, setEdit] = useState<Gear | "new" | null>(null);
  const [read, setRead] = useState<Gear | null>(null);
  const [look, setLook] = useState<Gear | null>(null);
  return (
    <Sheet
      title="Gear to charge"
      aside={
        may("technician") && (
          <Button variant="outline-primary" size="sm" className="d-print-none" onClick={() => setEdit("new")}>
            Add gear
          </Button>
        )
      }
    >
      {e.gear.length === 0 && (
        <Empty>
          No gear is on file. Controllers, tablets, laptops, radio boxes: any one of them ends a flight.
        </Empty>
      )}
      <Rows cols="34px minmax(0, 1fr)" always>
        {e.gear.map((g) => (
          <Tick key={g.id} e={e} item={`gear:${g.id}`} label={`Charged: ${g.name}`}>
            <strong>{g.name}</strong> <span className="soft">{gearKinds[g.kind]}</span>{" "}
            <VerdictMark verdict={g.verdict} /> <Explained text={g.sentence} />
            {g.checked_at && (
              <span className="soft">
                {" "}
                Read {age(g.checked_at)} by {g.checked_by}.
              </span>
            )}{" "}
            <span className="d-print-none d-inline-flex gap-2">
              {may("pilot", "crew", "technician") && (
                <Button size="sm" variant="outline-primary" onClick={() => setRead(g)}>
                  Read {g.name}
                </Button>
              )}
              {may("pilot", "crew", "technician") && (
                <Button size="sm" variant="outline-primary" onClick={() => setLook(g)}>
                  Look at {g.name}
                </Button>
              )}
              {may("technician") && (
                <Button size="sm" variant="outline-primary" onClick={() => setEdit(g)}>
                  Change
                </Button>
              )}
            </span>
          </Tick>
        ))}
      </Rows>
      {edit && <EditGear g={edit === "new" ? undefined : edit} onClose={() => setEdit(null)} />}
      {read && <ReadGear g={read} onClose={() => setRead(null)} />}
      {look && <LookAtGear g={look} onClose={() => setLook(null)} />}
    </Sheet>
  );
}

function ReadGear({ g, onClose }: { g: Gear; onClose: () => void }) {
  const checkGear = useCheckGear();
  const f = useDraftForm(`gear-level-${g.id}`, { level: "" }, [], zodResolver(levelForm));
  const send = f.submit(async (v) => {
    await checkGear.mutateAsync({ id: g.id, body: v });
    onClose();
  });
  return (
    <Dialog title={`Read ${g.name}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <NumberField label="Level it shows" unit="%" {...f.register("level")} wrong={f.wrong("level")} />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

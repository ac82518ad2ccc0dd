import { useGroundAircraft, useReturnAircraft } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";
import { type ActProps } from "./FitParts";

type Detail = Schemas["AircraftDetail"];

export function GroundAircraft({ open, onClose, d }: ActProps & { d: Detail }) {
  const groundAircraft = useGroundAircraft();
  const [id, setId] = useState(newId);
  const f = useDraftForm(`ground-${d.aircraft.id}`, { reason: "" });
  const send = f.submit(async (v) => {
    await groundAircraft.mutateAsync({ id: d.aircraft.id, body: { ...v, id } });
    setId(newId());
    f.reset({ reason: "" });
    onClose();
  });
  return (
    <Dialog title={`Ground ${d.aircraft.name}`} open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <AreaField
          label="Why it must not fly"
          {...f.register("reason")}
          wrong={f.wrong("reason")}
          hint="It is grounded at once for everybody. Only a technician or chief returns it."
        />
        <Button type="submit" variant="danger" className="w-100" disabled={f.formState.isSubmitting}>
          Ground it now
        </Button>
      </form>
    </Dialog>
  );
}

export function ReturnAircraft({ open, onClose, d }: ActProps & { d: Detail }) {
  const returnAircraft = useReturnAircraft();
  const { person } = useSession();
  const f = useDraftForm(`return-${d.aircraft.id}`, { note: "", pin: "" }, ["pin"]);
  const send = f.submit(async (v) => {
    try {
      await returnAircraft.mutateAsync({ id: d.aircraft.id, body: v });
    } finally {
      f.setValue("pin", "");
    }
    f.reset({ note: "", pin: "" });
    onClose();
  });
  return (
    <Dialog title={`Return ${d.aircraft.name} to service`} open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>
          This lifts {d.groundings.length === 1 ? "the grounding" : `all ${d.groundings.length} groundings`}:
        </p>
        <ul>
          {d.groundings.map((g) => (
            <li key={g.id}>
              {g.reason} <span className="soft">({g.by})</span>
            </li>
          ))}
        </ul>
        <AreaField label="What was done and found" {...f.register("note")} wrong={f.wrong("note")} />
        <PinPad
          value={f.watch("pin")}
          onChange={(v) => f.setValue("pin", v)}
          who={person.name}
          statement="I have inspected this aircraft and return it to service."
          wrong={f.wrong("pin")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Sign and return to service
        </Button>
      </form>
    </Dialog>
  );
}

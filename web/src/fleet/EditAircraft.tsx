import { zodResolver } from "@hookform/resolvers/zod";
import { useUpdateAircraft } from "./api";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { DateField } from "../parts/DateField";
import { CheckField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";
import { MassFields } from "./MassFields";
import { changedAircraft, shownMass } from "./model";

export function EditAircraft({ a, onClose }: { a: Schemas["Aircraft"]; onClose: () => void }) {
  const updateAircraft = useUpdateAircraft();
  const u = useUnits();
  const f = useDraftForm(
    `edit-aircraft-${a.id}-${a.version}`,
    {
      name: a.name,
      registration: a.registration,
      registration_expires: a.registration_expires ?? "",
      active: a.active,
      mass: shownMass(a.mass_kg, u),
      weighed_on: a.weighed_on ?? "",
    },
    [],
    zodResolver(changedAircraft(u, a.mass_kg)),
    (field) => (field === "mass_kg" ? "mass" : field),
  );
  const send = f.submit(async (v) => {
    await updateAircraft.mutateAsync({ id: a.id, body: { ...v, version: a.version } });
    onClose();
  });
  return (
    <Dialog title={`Change ${a.name}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Name the crew calls it by" {...f.register("name")} wrong={f.wrong("name")} />
        <TextField label="Registration" {...f.register("registration")} wrong={f.wrong("registration")} />
        <DateField
          label="Registration valid through"
          {...f.register("registration_expires")}
          wrong={f.wrong("registration_expires")}
        />
        <MassFields f={f} />
        <CheckField label="In service" {...f.register("active")} />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { useAddAircraft } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { DateField } from "../parts/DateField";
import { CheckField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";
import { MassFields } from "./MassFields";
import { newAircraft } from "./model";

interface Props {
  open: boolean;
  onClose: () => void;
  types: Schemas["TypeEntry"][];
}

export function AddAircraft({ open, onClose, types }: Props) {
  const addAircraft = useAddAircraft();
  const [id, setId] = useState(newId); // kept over repeated tries, so that a double submit adds one aircraft
  const u = useUnits();
  const f = useDraftForm(
    "add-aircraft",
    {
      type_key: types[0]?.profile.key ?? "",
      name: "",
      serial: "",
      registration: "",
      registration_expires: "",
      fit_new_parts: true,
      mass: "",
      weighed_on: "",
    },
    [],
    zodResolver(newAircraft(u)),
    (field) => (field === "mass_kg" ? "mass" : field),
  );
  const send = f.submit(async (v) => {
    await addAircraft.mutateAsync({ ...v, id });
    f.reset({
      ...f.formState.defaultValues,
      name: "",
      serial: "",
      registration: "",
      registration_expires: "",
      mass: "",
      weighed_on: "",
    });
    setId(newId());
    onClose();
  });
  return (
    <Dialog title="Add an aircraft" open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="Type" {...f.register("type_key")} wrong={f.wrong("type_key")}>
          {types.map((t) => (
            <option key={t.profile.key} value={t.profile.key}>
              {t.profile.name}: {t.profile.work}
            </option>
          ))}
        </SelectField>
        <TextField label="Name the crew calls it by" {...f.register("name")} wrong={f.wrong("name")} />
        <TextField label="Maker's serial number" {...f.register("serial")} wrong={f.wrong("serial")} />
        <TextField
          label="Registration"
          {...f.register("registration")}
          wrong={f.wrong("registration")}
          hint="Without it the gate says Stop."
        />
        <DateField
          label="Registration valid through"
          {...f.register("registration_expires")}
          wrong={f.wrong("registration_expires")}
        />
        <MassFields f={f} />
        <CheckField
          label="Put a new part on record for every motor, propeller and the airframe, all at zero hours"
          {...f.register("fit_new_parts")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Add the aircraft
        </Button>
      </form>
    </Dialog>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { useSaveNozzle } from "./api";
import { droplets, nozzleForm, typedNozzle, type Nozzle, type TypedNozzle } from "./nozzle";

const figures = [
  ["least_l_min", "Least flow", "L/min"],
  ["most_l_min", "Most flow", "L/min"],
  ["least_bar", "Least pressure", "bar"],
  ["most_bar", "Most pressure", "bar"],
] as const;

/** A kind of nozzle of the list, or a new one. */
export function NozzleDialog({ nozzle, onClose }: { nozzle?: Nozzle; onClose: () => void }) {
  const [fresh] = useState(newId);
  const save = useSaveNozzle();
  const f = useDraftForm<TypedNozzle, Nozzle>(
    `nozzle-${nozzle?.id ?? "new"}`,
    typedNozzle(nozzle),
    [],
    zodResolver(nozzleForm(nozzle ?? { id: fresh, key: "", version: 0 })),
  );
  const send = f.submit((body) => save.mutateAsync(body).then(onClose));
  return (
    <Dialog title={nozzle ? `Change ${nozzle.name}` : "Add a nozzle"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Name" {...f.register("name")} wrong={f.wrong("name")} />
        <div className="two">
          {figures.map(([field, label, unit]) => (
            <NumberField
              key={field}
              label={label}
              unit={unit}
              {...f.register(field)}
              wrong={f.wrong(field)}
            />
          ))}
        </div>
        <SelectField
          label="Droplets"
          hint="As the maker's table gives them at the pressures above."
          {...f.register("droplets")}
          wrong={f.wrong("droplets")}
        >
          {droplets.map((d) => (
            <option key={d}>{d}</option>
          ))}
        </SelectField>
        <CheckField label="In use: plans may choose it" {...f.register("active")} />
        <Button type="submit" disabled={save.isPending}>
          {save.isPending ? "Saving…" : "Save"}
        </Button>
      </form>
    </Dialog>
  );
}

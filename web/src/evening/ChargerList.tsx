import { useSaveCharger } from "./api";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { z } from "zod";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { CheckField, NumberField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { typedNumber, typedWhole } from "../parts/typed";

type Charger = Schemas["ChargerEdit"];

/** The chargers that the plan may use. */
export function ChargerList({ e }: { e: Schemas["Evening"] }) {
  const may = useMay();
  const [edit, setEdit] = useState<Charger | "new" | null>(null);
  return (
    <Sheet
      title="Chargers"
      aside={
        may("technician") && (
          <Button variant="outline-primary" size="sm" className="d-print-none" onClick={() => setEdit("new")}>
            Add a charger
          </Button>
        )
      }
    >
      {e.chargers.length === 0 && <p className="m-0">None is on file.</p>}
      <ul className="mb-0 ps-0" style={{ listStyle: "none" }}>
        {e.chargers.map((c) => (
          <li key={c.id} className="d-flex justify-content-between gap-2 align-items-center py-1">
            <span>
              {c.name}: {c.channels} × {c.watts} W{c.in_field && ", goes to the field"}
              {c.in_field && !!c.generator_w && ` with ${c.generator_w} W`}
              {!c.active && " (not in use)"}
            </span>
            {may("technician") && (
              <Button size="sm" variant="outline-primary" className="d-print-none" onClick={() => setEdit(c)}>
                Change
              </Button>
            )}
          </li>
        ))}
      </ul>
      {edit && <Edit c={edit === "new" ? undefined : edit} onClose={() => setEdit(null)} />}
    </Sheet>
  );
}

const chargerForm = z.object({
  name: z.string(),
  channels: typedWhole(1, 32, "Enter a whole number from 1 to 32."),
  watts: typedNumber(10, 20000, "W", "Enter 10 to 20000 W."),
  in_field: z.boolean(),
  generator: typedNumber(0, 1e6, "W"),
  active: z.boolean(),
});

function Edit({ c, onClose }: { c?: Charger; onClose: () => void }) {
  const saveCharger = useSaveCharger();
  const [id] = useState(() => c?.id ?? newId());
  const f = useDraftForm<z.input<typeof chargerForm>, z.output<typeof chargerForm>>(
    `charger-${c?.id ?? "new"}-${c?.version ?? 0}`,
    {
      name: c?.name ?? "",
      channels: String(c?.channels ?? 2),
      watts: String(c?.watts ?? 500),
      in_field: c?.in_field ?? false,
      generator: c?.generator_w ? String(c.generator_w) : "",
      active: c?.active ?? true,
    },
    [],
    zodResolver(chargerForm),
  );
  const send = f.submit(async ({ generator, watts, ...v }) => {
    const body = { ...v, id, watts: watts ?? 0, generator_w: generator ?? 0, version: c?.version ?? 0 };
    await saveCharger.mutateAsync(body);
    onClose();
  });
  return (
    <Dialog title={c ? `Change: ${c.name}` : "Add a charger"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="What it is called" {...f.register("name")} wrong={f.wrong("name")} />
        <NumberField label="Channels" unit="" {...f.register("channels")} wrong={f.wrong("channels")} />
        <NumberField label="Power of each" unit="W" {...f.register("watts")} wrong={f.wrong("watts")} />
        <CheckField label="Goes to the field" {...f.register("in_field")} />
        {f.watch("in_field") && (
          <NumberField
            label="Its generator gives"
            unit="W"
            {...f.register("generator")}
            wrong={f.wrong("generator")}
            hint="Empty: as much as it takes."
          />
        )}
        {c && <CheckField label="In use" {...f.register("active")} />}
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { gearForm } from "./model";
import { useSaveGear } from "./api";
import { useFleet } from "../api/queries";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

type Gear = Schemas["Gear"];

export const gearKinds: Record<Gear["kind"], string> = {
  controller: "Controller",
  tablet: "Tablet",
  laptop: "Laptop",
  comms: "Telemetry or radio box",
  "base-station": "Base station",
  charger: "Charger",
  goggles: "Goggles",
  camera: "Camera",
  light: "Light",
};

/** Adds a piece of gear, or changes one. */
export function EditGear({ g, onClose }: { g?: Gear; onClose: () => void }) {
  const saveGear = useSaveGear();
  const [id] = useState(() => g?.id ?? newId());
  const f = useDraftForm(
    `gear-${g?.id ?? "new"}`,
    {
      name: g?.name ?? "",
      kind: g?.kind ?? "controller",
      minimum: String(g?.minimum ?? 80),
      active: g?.active ?? true,
      aircraft: g?.aircraft_id ?? "",
    },
    [],
    zodResolver(gearForm),
    (field) => (field === "aircraft_id" ? "aircraft" : field),
  );
  const fleet = useFleet();
  const send = f.submit(async (v) => {
    const { aircraft, ...rest } = v;
    await saveGear.mutateAsync({ ...rest, id, aircraft_id: aircraft || null, version: g?.version ?? 0 });
    onClose();
  });
  return (
    <Dialog title={g ? `Change: ${g.name}` : "Add gear"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="What it is called" {...f.register("name")} wrong={f.wrong("name")} />
        <SelectField label="Kind" {...f.register("kind")} wrong={f.wrong("kind")}>
          {Object.entries(gearKinds).map(([k, words]) => (
            <option key={k} value={k}>
              {words}
            </option>
          ))}
        </SelectField>
        <NumberField
          label="Leaves the base with at least"
          unit="%"
          {...f.register("minimum")}
          wrong={f.wrong("minimum")}
        />
        <SelectField
          label="Belongs to"
          {...f.register("aircraft")}
          wrong={f.wrong("aircraft")}
          hint="What belongs to an aircraft stops its gate as packs do."
        >
          <option value="">the crew</option>
          {fleet.data?.aircraft.map(({ aircraft: a }) => (
            <option key={a.id} value={a.id}>
              {a.name}
            </option>
          ))}
        </SelectField>
        {g && <CheckField label="In use" {...f.register("active")} />}
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

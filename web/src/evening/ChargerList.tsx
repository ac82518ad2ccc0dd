import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { useMay } from "../app/session";
import { Dialog } from "../parts/Dialog";
import { CheckField, NumberField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";

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
          <Button variant="outline-primary" size="sm" className="no-print" onClick={() => setEdit("new")}>
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
              {c.name}: {c.channels} × {c.watts} W{!c.active && " (not in use)"}
            </span>
            {may("technician") && (
              <Button size="sm" variant="outline-primary" className="no-print" onClick={() => setEdit(c)}>
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

function Edit({ c, onClose }: { c?: Charger; onClose: () => void }) {
  const qc = useQueryClient();
  const [id] = useState(() => c?.id ?? newId());
  const f = useDraftForm(`charger-${c?.id ?? "new"}-${c?.version ?? 0}`, {
    name: c?.name ?? "",
    channels: String(c?.channels ?? 2),
    watts: String(c?.watts ?? 500),
    active: c?.active ?? true,
  });
  const send = f.submit(async (v) => {
    const channels = parseInRange(v.channels, 1, 32, "");
    const watts = parseInRange(v.watts, 10, 20000, "W");
    if (!channels.ok || !Number.isInteger(channels.value))
      f.setError("channels", { message: "Enter a whole number from 1 to 32." });
    if (!watts.ok) f.setError("watts", { message: watts.empty ? "Enter 10 to 20000 W." : watts.sentence });
    if (!channels.ok || !watts.ok || !Number.isInteger(channels.value)) return;
    await ask(
      api.PUT("/chargers", {
        body: {
          id,
          name: v.name,
          channels: channels.value,
          watts: watts.value,
          active: v.active,
          version: c?.version ?? 0,
        },
      }),
    );
    onClose();
    await qc.invalidateQueries();
  });
  return (
    <Dialog title={c ? `Change: ${c.name}` : "Add a charger"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="What it is called" {...f.register("name")} wrong={f.wrong("name")} />
        <NumberField label="Channels" unit="" {...f.register("channels")} wrong={f.wrong("channels")} />
        <NumberField label="Power of each" unit="W" {...f.register("watts")} wrong={f.wrong("watts")} />
        {c && <CheckField label="In use" {...f.register("active")} />}
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { Problem } from "../parts/states";

const blank = { label: "", serial: "", chemistry: "LiPo" as const, cells: "", capacity_mah: "", cycles: "0" };

export function AddPack({ open, onClose }: { open: boolean; onClose: () => void }) {
  const qc = useQueryClient();
  const [id, setId] = useState(newId);
  const f = useDraftForm<Omit<typeof blank, "chemistry"> & { chemistry: "LiPo" | "LiHV" | "Li-ion" }>(
    "add-pack",
    blank,
  );
  const send = f.submit(async (v) => {
    const whole = (name: "cells" | "capacity_mah" | "cycles", min: number, max: number, unit: string) => {
      const p = parseInRange(v[name], min, max, unit);
      if (!p.ok) f.setError(name, { message: p.empty ? "Enter a number." : p.sentence });
      else if (!Number.isInteger(p.value)) f.setError(name, { message: "Enter a whole number." });
      else return p.value;
      return undefined;
    };
    const cells = whole("cells", 1, 24, "cells");
    const capacity = whole("capacity_mah", 100, 200000, "mAh");
    const cycles = whole("cycles", 0, 5000, "cycles");
    if (cells === undefined || capacity === undefined || cycles === undefined) return;
    await ask(
      api.POST("/packs", {
        body: {
          id,
          label: v.label,
          serial: v.serial,
          chemistry: v.chemistry,
          cells,
          capacity_mah: capacity,
          cycles,
        },
      }),
    );
    setId(newId());
    f.reset(blank);
    onClose();
    await qc.invalidateQueries();
  });
  return (
    <Dialog title="Add a pack" open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Label on the pack" {...f.register("label")} wrong={f.wrong("label")} />
        <TextField label="Maker's serial number" {...f.register("serial")} wrong={f.wrong("serial")} />
        <SelectField label="Chemistry" {...f.register("chemistry")} wrong={f.wrong("chemistry")}>
          <option value="LiPo">LiPo, 4.20 V a cell when full</option>
          <option value="LiHV">LiHV, 4.35 V a cell when full</option>
          <option value="Li-ion">Li-ion, 4.20 V a cell when full</option>
        </SelectField>
        <NumberField label="Cells in series" unit="cells" {...f.register("cells")} wrong={f.wrong("cells")} />
        <NumberField
          label="Rated capacity"
          unit="mAh"
          {...f.register("capacity_mah")}
          wrong={f.wrong("capacity_mah")}
        />
        <NumberField
          label="Cycles it has behind it"
          unit="cycles"
          {...f.register("cycles")}
          wrong={f.wrong("cycles")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Add the pack
        </Button>
      </form>
    </Dialog>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { useTypes } from "../api/queries";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { KindFields } from "./KindFields";
import { useAddPacks } from "./api";
import { addForm, fitting } from "./form";

const blank = {
  type: "",
  labels: "",
  serials: "",
  chemistry: "LiPo" as const,
  cells: "",
  capacity_mah: "",
  cycles: "0",
  charged: false,
};

/** Adds packs, one or a whole set: from a type of aircraft, or by themselves. */
export function AddPack({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [id, setId] = useState(newId); // the same over repeated tries, so that they are added once
  const types = useTypes().data?.types ?? [];
  const add = useAddPacks();
  const f = useDraftForm("add-pack", blank, [], zodResolver(addForm.loose()));
  const take = (key: string) => {
    const t = types.find((x) => x.profile.key === key)?.profile;
    if (t) Object.entries(fitting(t)).forEach(([k, v]) => f.setValue(k as "cells", v));
  };
  const send = f.submit(async ({ labels, serials, chemistry, cells, capacity_mah, cycles, charged }) => {
    const body = { id, labels, chemistry, cells, capacity_mah, cycles, charged };
    await add.mutateAsync(serials.length ? { ...body, serials } : body);
    setId(newId());
    f.reset(blank);
    onClose();
  });
  return (
    <Dialog title="Add packs" open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField
          label="They fly in"
          {...f.register("type", { onChange: (e: { target: { value: string } }) => take(e.target.value) })}
        >
          <option value="">choose, or say below what they are</option>
          {types.map((t) => (
            <option key={t.profile.key} value={t.profile.key}>
              {t.profile.name}
            </option>
          ))}
        </SelectField>
        <TextField
          label="Labels"
          placeholder="L1 to L8"
          hint="One, or several: L1 to L8, or A, B, C."
          {...f.register("labels")}
          wrong={f.wrong("labels")}
        />
        <AreaField
          label="Maker's serial numbers"
          hint="One a line, in the order of the labels. May stay empty, and be put right later."
          {...f.register("serials")}
          wrong={f.wrong("serials")}
        />
        <CheckField
          label="Charged within the last day; else they lie at storage level"
          {...f.register("charged")}
        />
        <KindFields register={(n) => f.register(n)} wrong={(n) => f.wrong(n)} />
        <Button type="submit" className="w-100" disabled={add.isPending}>
          Add the packs
        </Button>
      </form>
    </Dialog>
  );
}

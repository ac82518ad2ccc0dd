import { zodResolver } from "@hookform/resolvers/zod";
import type { z } from "zod";
import { partForm } from "./forms";
import { useAddPart } from "./api";
import { PartKindFields } from "./PartKindFields";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

/** Puts a part on the shelf. */
export function AddPart({ onClose }: { onClose: () => void }) {
  const addPart = useAddPart();
  const [id, setId] = useState(newId);
  const [saved, setSaved] = useState("");
  const f = useDraftForm<z.input<typeof partForm>, z.output<typeof partForm>>(
    "new-part",
    {
      type_key: "",
      kind: "",
      serial: "",
      batch: "",
      source: "maker",
      price: "",
    },
    [],
    zodResolver(partForm),
    (field) => (field === "price_cents" ? "price" : field),
  );
  const send = f.submit(async (v) => {
    setSaved("");
    const { price, ...rest } = v;
    const p = await addPart.mutateAsync({ ...rest, id, price_cents: price });
    setId(newId());
    setSaved(`${p.serial} is on the shelf. Enter the next, or close.`);
    f.setValue("serial", "");
  });
  return (
    <Dialog title="Put a part on the shelf" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        {saved && <p role="status">{saved}</p>}
        <PartKindFields
          type={f.watch("type_key")}
          register={(n) => f.register(n)}
          wrong={(n) => f.wrong(n)}
        />
        <TextField label="Serial number" {...f.register("serial")} wrong={f.wrong("serial")} />
        <TextField label="Batch" {...f.register("batch")} wrong={f.wrong("batch")} />
        <SelectField label="From" {...f.register("source")} wrong={f.wrong("source")}>
          <option value="maker">The maker</option>
          <option value="third-party">A third party</option>
        </SelectField>
        <NumberField label="Price" unit="" {...f.register("price")} wrong={f.wrong("price")} />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Put it on the shelf
        </Button>
      </form>
    </Dialog>
  );
}

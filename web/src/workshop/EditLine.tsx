import { zodResolver } from "@hookform/resolvers/zod";
import { stockForm } from "./forms";
import { useSaveStock } from "./api";
import { useTypes } from "../api/queries";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { Dialog } from "../parts/Dialog";
import { NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { kindName, kindsOf } from "./partKinds";

type Line = Schemas["StockLine"];

/** A line of the stock: what is kept, how many, where from. */
export function EditLine({ line, onClose }: { line?: Line; onClose: () => void }) {
  const saveStock = useSaveStock();
  const qc = useQueryClient();
  const types = useTypes();
  const [id] = useState(() => line?.id ?? newId());
  const f = useDraftForm(
    `stock-${line?.id ?? "new"}`,
    {
      name: line?.name ?? "",
      type_key: line?.type_key ?? "",
      kind: line?.kind ?? "",
      quantity: String(line?.on_hand ?? 0),
      minimum: String(line?.minimum ?? 1),
      delivery_days: String(line?.delivery_days ?? 14),
      price: line?.price_cents == null ? "" : (line.price_cents / 100).toFixed(2),
      source: line?.source ?? "",
    },
    [],
    zodResolver(stockForm),
    (field) => (field === "price_cents" ? "price" : field),
  );
  const key = f.watch("type_key");
  const send = f.submit(async (v) => {
    const fresh = await saveStock.mutateAsync({ ...v, id, version: line?.version ?? 0 });
    qc.setQueryData(keys.stock, fresh);
    onClose();
  });
  return (
    <Dialog title={line ? `Change: ${line.name}` : "Add a stock line"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="What it is" {...f.register("name")} wrong={f.wrong("name")} />
        <SelectField
          label="For a type"
          {...f.register("type_key")}
          wrong={f.wrong("type_key")}
          hint="Parts with a serial number belong to a type and are counted from the shelf."
        >
          <option value="">Any: it has no serial number</option>
          {types.data?.types.map((t) => (
            <option key={t.profile.key} value={t.profile.key}>
              {t.profile.name}
            </option>
          ))}
        </SelectField>
        {key && (
          <SelectField label="Kind of part" {...f.register("kind")} wrong={f.wrong("kind")}>
            <option value="">None: it is counted here</option>
            {kindsOf(types.data?.types, key).map((k) => (
              <option key={k} value={k}>
                {kindName(k)}
              </option>
            ))}
          </SelectField>
        )}
        {!f.watch("kind") && (
          <NumberField
            label="How many are there"
            unit=""
            {...f.register("quantity")}
            wrong={f.wrong("quantity")}
          />
        )}
        <NumberField label="Never fewer than" unit="" {...f.register("minimum")} wrong={f.wrong("minimum")} />
        <NumberField
          label="Delivery takes"
          unit="days"
          {...f.register("delivery_days")}
          wrong={f.wrong("delivery_days")}
        />
        <NumberField label="Price of one" unit="" {...f.register("price")} wrong={f.wrong("price")} />
        <TextField label="Where it is bought" {...f.register("source")} wrong={f.wrong("source")} />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { CellsField } from "../parts/CellsField";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, NumberField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { checkForm, guides, type Kind } from "./checks";
import { useCheckPress } from "./send";

interface Typed {
  numbers: Record<string, string>;
  row: string[];
  pulses: boolean;
  note: string;
}

/** A calibration, step by step, judged when it is put on record. */
export function CheckDialog({
  kind,
  aircraft,
  onClose,
}: {
  kind: Kind;
  aircraft: string;
  onClose: () => void;
}) {
  const g = guides[kind];
  const [id] = useState(newId);
  const press = useCheckPress(aircraft);
  const blank: Typed = {
    numbers: Object.fromEntries(g.asks.map((a) => [a.field, ""])),
    row: [],
    pulses: false,
    note: "",
  };
  const f = useDraftForm<Typed, Schemas["NewSprayCheck"]>(
    `check-${aircraft}-${kind}`,
    blank,
    [],
    zodResolver(checkForm(kind, id)) as never, // which numbers there are depends on the kind
  );
  const put = (body: Schemas["NewSprayCheck"]) => {
    press(body);
    onClose();
  };
  const send = f.submit(async (body) => put(body));
  const looked = (in_order: boolean) => put({ id, kind, in_order, note: f.getValues("note") });
  const fault = (field: string) =>
    (f.formState.errors.numbers as Record<string, { message?: string }> | undefined)?.[field]?.message;
  return (
    <Dialog title={g.name} open onClose={onClose}>
      <ol>
        {g.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        {g.row && (
          <CellsField
            label={g.row.label}
            unit={g.row.unit}
            name={(i) => `${g.row!.name} ${i + 1}`}
            count={Math.max(8, f.watch("row").length)}
            values={f.watch("row")}
            onChange={(v) => f.setValue("row", v, { shouldDirty: true })}
            wrong={f.wrong("row")}
          />
        )}
        {g.asks.map((a) => (
          <NumberField
            key={a.field}
            label={a.label}
            unit={a.unit}
            {...f.register(`numbers.${a.field}`)}
            wrong={fault(a.field)}
          />
        ))}
        {kind === "pump" && (
          <CheckField label="The factor is pulses for each litre" {...f.register("pulses")} />
        )}
        <AreaField label="Note" {...f.register("note")} wrong={f.wrong("note")} />
        {g.look ? (
          <div className="d-flex gap-2">
            <Button onClick={() => looked(true)}>In order</Button>
            <Button variant="outline-danger" onClick={() => looked(false)}>
              Not in order
            </Button>
          </div>
        ) : (
          <Button type="submit">Judge and put on record</Button>
        )}
      </form>
    </Dialog>
  );
}

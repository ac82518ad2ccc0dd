import { useState } from "react";
import { zodResolver } from "@hookform/resolvers/zod";
import { useDraftForm } from "../parts/form";
import { TickField } from "../parts/TickField";
import { Rows } from "../parts/Rows";
import { usePackKit } from "./api";
import { Button, ListGroup } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { useAbout } from "../outbox/hooks";
import { Waits } from "../outbox/Waits";
import { NumberField, TextField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { kitForm, kitThing, useKitTick, withTicks } from "./kit";

/** What to take along: packed by one, checked by another look. */
export function KitPanel({ j }: { j: Schemas["Job"] }) {
  const packKit = usePackKit();
  const may = useMay()("pilot", "crew", "technician") && j.state === "planned";
  const about = useAbout(kitThing(j.id));
  const kit = withTicks(j.kit, about.waiting);
  const tick = useKitTick(j.id);
  const f = useDraftForm(`kit-${j.id}`, { label: "", quantity: "" }, [], zodResolver(kitForm));
  const [item, setItem] = useState(newId); // kept over repeated tries, so that one thing is one line
  const add = f.submit(async (v) => {
    await packKit.mutateAsync({ id: j.id, item, body: { ...v, packed: false, checked: false } });
    setItem(newId());
    f.reset({ label: "", quantity: "" });
  });
  const left = kit.filter((k) => !k.packed).length;
  const unchecked = kit.filter((k) => k.packed && !k.checked).length;
  return (
    <Sheet
      title="Kit"
      aside={
        <span className="soft">
          {left + unchecked === 0
            ? "all packed and checked"
            : `of ${kit.length}: ${left} to pack, ${unchecked} to check`}
        </span>
      }
    >
      <Waits about={about} />
      <Rows cols="56px minmax(0, 1fr) auto" always className="folds">
        {kit.map((k) => (
          <ListGroup.Item as="li" key={k.id} className={k.packed && k.checked ? "soft" : ""}>
            <span className="fig">{k.quantity > 0 ? `${k.quantity} ×` : ""}</span>
            <span>
              {k.label}
              <span className="soft d-block">
                {k.packed
                  ? `packed by ${k.packed_by}${k.checked ? `, checked by ${k.checked_by}` : ""}`
                  : k.why}
              </span>
            </span>
            <div className="d-flex gap-3">
              <TickField
                label="packed"
                checked={k.packed}
                disabled={!may}
                aria-label={`Packed: ${k.label}`}
                onChange={(e) =>
                  tick(k, { packed: e.target.checked, checked: e.target.checked && k.checked })
                }
              />
              <TickField
                label="checked"
                checked={k.checked}
                disabled={!may || !k.packed}
                aria-label={`Checked: ${k.label}`}
                onChange={(e) => tick(k, { checked: e.target.checked })}
              />
            </div>
          </ListGroup.Item>
        ))}
      </Rows>
      {may && (
        <form className="d-print-none d-flex gap-2 align-items-end flex-wrap mt-2" onSubmit={add} noValidate>
          <TextField
            label="Something else"
            maxLength={120}
            {...f.register("label")}
            wrong={f.wrong("label") ?? f.root}
          />
          <div style={{ width: 120 }}>
            <NumberField label="How many" unit="" {...f.register("quantity")} wrong={f.wrong("quantity")} />
          </div>
          <Button
            type="submit"
            variant="outline-primary"
            className="mb-3"
            disabled={f.formState.isSubmitting}
          >
            Add
          </Button>
        </form>
      )}
    </Sheet>
  );
}

import { TickField } from "../parts/TickField";
import { Rows } from "../parts/Rows";
import { usePackKit } from "./api";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { useAbout } from "../outbox/hooks";
import { Waits } from "../outbox/Waits";
import { NumberField, TextField } from "../parts/Field";
import { parseInRange } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { kitThing, useKitTick, withTicks } from "./kit";

/** What to take along: packed by one, checked by another look. */
export function KitPanel({ j }: { j: Schemas["Job"] }) {
  const packKit = usePackKit();
  const may = useMay()("pilot", "crew", "technician") && j.state === "planned";
  const [error, setError] = useState<unknown>();
  const [label, setLabel] = useState("");
  const [count, setCount] = useState("");
  const about = useAbout(kitThing(j.id));
  const kit = withTicks(j.kit, about.waiting);
  const put = async (item: string, body: Schemas["KitEdit"]) => {
    setError(undefined);
    try {
      await packKit.mutateAsync({ id: j.id, item, body });
      return true;
    } catch (e) {
      setError(e);
      return false;
    }
  };
  const tick = useKitTick(j.id);
  const n = parseInRange(count, 0, 10000, "");
  const add = async () => {
    if (!label.trim() || (!n.ok && !n.empty)) return;
    const body = {
      packed: false,
      checked: false,
      label: label.trim(),
      quantity: n.ok ? Math.round(n.value) : 0,
    };
    if (await put(newId(), body)) {
      setLabel("");
      setCount("");
    }
  };
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
      {error !== undefined && <Problem error={error} />}
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
        <form
          className="d-print-none d-flex gap-2 align-items-end flex-wrap mt-2"
          onSubmit={(e) => {
            e.preventDefault();
            void add();
          }}
        >
          <TextField
            label="Something else"
            maxLength={120}
            value={label}
            onChange={(e) => setLabel(e.target.value)}
          />
          <div style={{ width: 120 }}>
            <NumberField
              label="How many"
              unit=""
              value={count}
              onChange={(e) => setCount(e.target.value)}
              wrong={!n.ok && !n.empty ? n.sentence : undefined}
            />
          </div>
          <Button type="submit" variant="outline-primary" className="mb-3">
            Add
          </Button>
        </form>
      )}
    </Sheet>
  );
}

import { Wrong } from "../parts/Field";
import { Button, Form } from "react-bootstrap";
import { useFieldArray } from "react-hook-form";
import { Sheet } from "../parts/Sheet";
import { capital } from "../parts/text";
import { equipmentKinds } from "./model";
import type { FormOfType } from "./useTypeForm";

/** Parts with a life beside motors, propellers and the airframe. */
export function EquipmentFields({ f }: { f: FormOfType }) {
  const rows = useFieldArray({ control: f.control, name: "equipment" });
  const stations = f.trial.data?.entry?.stations ?? [];
  const places = [...new Set(stations.flatMap((s) => [s.kind, s.id]))];
  return (
    <Sheet title="Parts that are counted besides motors, propellers and airframe">
      <Wrong>{f.said("equipment")}</Wrong>
      {rows.fields.map((r, i) => (
        <div
          className="d-grid column-gap-3 mb-2"
          style={{ gridTemplateColumns: "1fr 1fr 5rem auto" }}
          key={r.id}
        >
          <Form.Select aria-label={`Part ${i + 1}`} {...f.register(`equipment.${i}.kind`)}>
            {equipmentKinds.map((k) => (
              <option key={k} value={k}>
                {capital(k.replace("-", " "))}
              </option>
            ))}
          </Form.Select>
          <Form.Select
            aria-label={`Place of part ${i + 1}`}
            key={places.length}
            {...f.register(`equipment.${i}.at`)}
          >
            {places.length === 0 && <option>{r.at}</option>}
            {places.map((k) => (
              <option key={k} value={k}>
                {stations.find((s) => s.id === k)?.label ?? `each ${k}`}
              </option>
            ))}
          </Form.Select>
          <Form.Control
            inputMode="numeric"
            aria-label={`How many of part ${i + 1}`}
            aria-invalid={f.said(`equipment.${i}.count`) ? true : undefined}
            {...f.register(`equipment.${i}.count`)}
          />
          <Button
            variant="outline-danger"
            aria-label={`Take away part ${i + 1}`}
            onClick={() => rows.remove(i)}
          >
            Take away
          </Button>
          {f.said(`equipment.${i}.count`) && <Wrong>{f.said(`equipment.${i}.count`)}</Wrong>}
        </div>
      ))}
      <Button
        variant="outline-primary"
        onClick={() => rows.append({ kind: "landing-gear", at: "frame", count: "1" })}
      >
        Add a part
      </Button>
    </Sheet>
  );
}

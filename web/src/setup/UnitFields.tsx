import { Button } from "react-bootstrap";
import { SelectField } from "../parts/Field";
import { choices, metric, presetOf, us, type UnitForm } from "./units";

export interface UnitFieldsProps {
  value: UnitForm;
  onChange: (u: UnitForm) => void;
}

const presets = [
  { key: "metric", name: "Metric", set: metric, words: "m, m/s, kg, °C, L" },
  { key: "us", name: "US", set: us, words: "ft, mph, lb, °F, gal" },
] as const;

/** The usual sets with one press; each unit by itself below. */
export function UnitFields({ value, onChange }: UnitFieldsProps) {
  const now = presetOf(value);
  return (
    <fieldset className="field">
      <legend className="fs-6 fw-semibold">Units</legend>
      <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="Units">
        {presets.map((p) => (
          <Button
            key={p.key}
            variant={now === p.key ? "primary" : "outline-primary"}
            aria-pressed={now === p.key}
            onClick={() => onChange({ ...p.set })}
          >
            {p.name} <span className="fw-normal">{p.words}</span>
          </Button>
        ))}
      </div>
      <details open={now === "own" || undefined}>
        <summary className="tap py-2">Each by itself{now === "own" && ": mixed"}</summary>
        <div className="row row-cols-2 gx-3 mt-2">
          {choices.map((c) => (
            <SelectField
              key={c.name}
              label={c.label}
              value={value[c.name]}
              onChange={(e) => onChange({ ...value, [c.name]: e.target.value })}
            >
              {c.options.map(([v, l]) => (
                <option key={v} value={v}>
                  {l}
                </option>
              ))}
            </SelectField>
          ))}
        </div>
      </details>
    </fieldset>
  );
}

import { typedNumber } from "../parts/typed";
import { Form } from "react-bootstrap";
import { NumberField } from "../parts/Field";
import type { Typed } from "./wish";
import type { WishFormOf } from "./WishForm";

type Sliding = "rate" | "speed_ms" | "swath_m" | "edge_m" | "bearing_deg";

export interface SlideProps {
  form: WishFormOf;
  name: Sliding & keyof Typed;
  label: string;
  unit: string;
  most: number;
  step: number;
  disabled?: boolean;
}

/** A number that is typed, or found by moving: both are the same value. */
export function Slide({ form, name, label, unit, most, step, disabled }: SlideProps) {
  const text = form.watch(name);
  const value = typedNumber(-1e9, 1e9, unit).safeParse(text).data ?? 0;
  return (
    <div
      className="d-grid column-gap-3 align-items-end"
      style={{ gridTemplateColumns: "9.5rem minmax(0, 1fr)" }}
    >
      <NumberField
        label={label}
        unit={unit}
        {...form.register(name)}
        wrong={form.wrong(name)}
        disabled={disabled}
      />
      <Form.Range
        className="tap d-print-none"
        aria-label={`Move ${label.toLowerCase()}`}
        min={0}
        max={Math.max(most, value)}
        step={step}
        value={value}
        disabled={disabled}
        onChange={(e) =>
          form.setValue(name, String(+Number(e.target.value).toFixed(2)), { shouldDirty: true })
        }
      />
    </div>
  );
}

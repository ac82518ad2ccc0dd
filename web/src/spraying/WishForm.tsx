import type { UseFormReturn } from "react-hook-form";
import { NumberField, SelectField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan, Wish } from "./api";
import { FieldSheet } from "./FieldSheet";
import { rateOf, rates } from "./model";
import { ProductSheets } from "./ProductSheets";
import { Slide } from "./Slide";
import type { Typed } from "./wish";

export type WishFormOf = UseFormReturn<Typed, unknown, Wish> & {
  wrong: (name: keyof Typed) => string | undefined;
};

export interface WishFormProps {
  form: WishFormOf;
  p: Plan;
  /** The plan as it is kept. */
  mine: Plan;
}

const unknowns: Record<Typed["unknown"], string> = {
  flow: "the flow",
  rate: "the rate",
  speed: "the speed",
  swath: "the swath",
};

/** What is wished of a plan. What is sprayed already keeps the passes where they lie. */
export function WishForm({ form, p, mine }: WishFormProps) {
  const u = useUnits();
  const r = rates(u);
  const fixed = mine.done.length > 0;
  const unknown = form.watch("unknown");
  const granules = form.watch("granules");
  const field = (name: keyof Typed) => ({ ...form.register(name), wrong: form.wrong(name) });
  const per = rateOf(r, granules);
  const sliders = [
    { of: "rate", name: "rate", label: "Rate", unit: per.label, most: 60 / per.by, step: 0.5 },
    {
      of: "speed",
      name: "speed_ms",
      label: "Speed",
      unit: u.label("speed"),
      most: u.value("speed", 12),
      step: 0.1,
    },
    {
      of: "swath",
      name: "swath_m",
      label: granules ? "Spread width" : "Swath",
      unit: u.label("length"),
      most: u.value("length", 12),
      step: 0.1,
      disabled: fixed,
    },
  ] as const;
  return (
    <div className="vstack gap-3 form">
      <Sheet title="Rate, speed, swath">
        <SelectField label="Worked out from the others" {...field("unknown")}>
          {Object.entries(unknowns).map(([k, w]) => (
            <option key={k} value={k}>
              {w}
            </option>
          ))}
        </SelectField>
        {sliders
          .filter((x) => x.of !== unknown)
          .map(({ of, ...x }) => (
            <Slide key={of} form={form} {...x} />
          ))}
        {unknown !== "flow" && (
          <NumberField label="Flow" unit={granules ? "kg/min" : "L/min"} {...field("flow_l_min")} />
        )}
        <div className="row row-cols-2 gx-3">
          <NumberField label="Over the crop" unit={u.label("length")} {...field("height_m")} />
          <NumberField label="Crop height" unit={u.label("length")} {...field("crop_m")} />
        </div>
      </Sheet>
      <FieldSheet form={form} p={p} mine={mine} />
      <ProductSheets form={form} p={p} mine={mine} />
    </div>
  );
}

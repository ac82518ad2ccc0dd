import type { UseFormReturn } from "react-hook-form";
import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import { useNozzles, type Plan, type Wish } from "./api";
import { Mix } from "./Mix";
import { rates } from "./model";
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
  const nozzles = useNozzles();
  const fixed = mine.done.length > 0;
  const unknown = form.watch("unknown");
  const granules = form.watch("granules");
  const field = (name: keyof Typed) => ({ ...form.register(name), wrong: form.wrong(name) });
  const per = granules && r.rateLabel === "L/ha" ? "kg/ha" : r.rateLabel;
  const sliders = [
    { of: "rate", name: "rate", label: "Rate", unit: per, most: 60 / r.rate, step: 0.5 },
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
      label: "Swath",
      unit: u.label("length"),
      most: u.value("length", 12),
      step: 0.1,
      disabled: fixed,
    },
  ] as const;
  return (
    <div className="stack wish form">
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
        <div className="four">
          <NumberField label="Over the crop" unit={u.label("length")} {...field("height_m")} />
          <NumberField label="Crop height" unit={u.label("length")} {...field("crop_m")} />
        </div>
      </Sheet>
      <Sheet title="Field and passes">
        {fixed && <p className="soft">Part of it is sprayed: the passes lie as they lie.</p>}
        {p.fields.length > 1 && (
          <SelectField label="Field" {...field("field")} disabled={fixed}>
            <option value="">the first</option>
            {p.fields.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
              </option>
            ))}
          </SelectField>
        )}
        <Slide
          form={form}
          name="edge_m"
          label="Edge kept free"
          unit={u.label("length")}
          most={u.value("length", 30)}
          step={0.5}
          disabled={fixed}
        />
        <SelectField label="Direction of the strips" {...field("direction")} disabled={fixed}>
          <option value="best">fewest passes</option>
          <option value="rows">along the rows</option>
          <option value="into-wind">across the wind</option>
        </SelectField>
        {form.watch("direction") === "rows" && (
          <Slide
            form={form}
            name="bearing_deg"
            label="Bearing of the rows"
            unit="°"
            most={180}
            step={1}
            disabled={fixed}
          />
        )}
        <div className="four">
          <NumberField label="Sections switched alone" unit="" {...field("sections")} disabled={fixed} />
          <NumberField label="Turn" unit="s" {...field("turn_s")} />
        </div>
        <CheckField label="Passes along slanting edges too" {...form.register("edges")} disabled={fixed} />
        <CheckField label="A pass is not broken off" {...form.register("whole_pass")} />
        <CheckField label="A flight ends at the near end of a pass" {...form.register("end_at_start")} />
      </Sheet>
      <Sheet title={granules ? "Spreader and product" : "Nozzles and product"}>
        <CheckField label="Granules, spread" {...form.register("granules")} />
        {!granules && (
          <div className="four">
            <SelectField label="Nozzle" {...field("nozzle")}>
              <option value="">not chosen</option>
              {nozzles.data?.nozzles
                .filter((n) => n.active)
                .map((n) => (
                  <option key={n.key} value={n.key}>
                    {n.name}: {n.least_l_min}-{n.most_l_min} L/min, {n.droplets}
                  </option>
                ))}
            </SelectField>
            <NumberField label="How many" unit="" {...field("nozzles")} />
          </div>
        )}
        <Mix form={form} />
        <TextField label="Registration number" {...field("number")} />
      </Sheet>
      <Sheet title="What the label says">
        <p className="soft">Wind limits of the label stand in the job. What is left empty is not said.</p>
        <div className="four">
          <NumberField label="Distance downwind" unit={u.label("length")} {...field("buffer_m")} />
          <NumberField label="At most" unit={per} {...field("most_rate")} />
          <NumberField label="At least" unit={per} {...field("least_rate")} />
          <NumberField label="Not hotter than" unit={u.label("temperature")} {...field("most_c")} />
          <NumberField label="Delta T at least" unit="°C" {...field("least_delta_t")} />
          <NumberField label="Delta T at most" unit="°C" {...field("most_delta_t")} />
          <NumberField label="Nobody enters for" unit="h" {...field("re_entry_hours")} />
        </div>
        <Fold summary="Mass and tank" open={false}>
          <div className="four">
            <NumberField
              label="Dry, weighed"
              unit={u.label("mass")}
              {...field("dry_kg")}
              hint="With packs, without mix."
            />
            <NumberField
              label="Fill at most"
              unit={u.label("volume")}
              {...field("tank_l")}
              hint={`The tank holds ${u.show("volume", p.tank_l)}.`}
            />
            <NumberField label="The mix weighs" unit="kg/L" {...field("kg_per_l")} />
          </div>
        </Fold>
      </Sheet>
    </div>
  );
}

import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import { useNozzles } from "./api";
import { Mix } from "./Mix";
import { rateOf, rates } from "./model";
import type { Typed } from "./wish";
import type { WishFormProps } from "./WishForm";

/** What is sprayed or spread, with what, and what its label says. */
export function ProductSheets({ form, p }: WishFormProps) {
  const u = useUnits();
  const r = rates(u);
  const nozzles = useNozzles();
  const granules = form.watch("granules");
  const per = rateOf(r, granules).label;
  const field = (name: keyof Typed) => ({ ...form.register(name), wrong: form.wrong(name) });
  return (
    <>
      <Sheet title={granules ? "Spreader and product" : "Nozzles and product"}>
        <CheckField label="Granules, spread" {...form.register("granules")} />
        {!granules && (
          <div className="row row-cols-2 gx-3">
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
        <div className="row row-cols-2 gx-3">
          <NumberField label="Distance downwind" unit={u.label("length")} {...field("buffer_m")} />
          <NumberField label="At most" unit={per} {...field("most_rate")} />
          <NumberField label="At least" unit={per} {...field("least_rate")} />
          <NumberField label="Not hotter than" unit={u.label("temperature")} {...field("most_c")} />
          <NumberField label="Delta T at least" unit="°C" {...field("least_delta_t")} />
          <NumberField label="Delta T at most" unit="°C" {...field("most_delta_t")} />
          <NumberField label="Nobody enters for" unit="h" {...field("re_entry_hours")} />
        </div>
        <Fold summary="Mass and tank" open={false}>
          <div className="row row-cols-2 gx-3">
            <NumberField
              label="Dry, weighed"
              unit={u.label("mass")}
              {...field("dry_kg")}
              hint="With packs, without mix."
            />
            <NumberField
              label="Fill at most"
              unit={granules ? u.label("mass") : u.label("volume")}
              {...field("tank_l")}
              hint={`The tank holds ${u.show("volume", p.tank_l)}.`}
            />
            <NumberField
              label={granules ? "In the hopper they weigh" : "The mix weighs"}
              unit="kg/L"
              {...field("kg_per_l")}
            />
          </div>
        </Fold>
      </Sheet>
    </>
  );
}

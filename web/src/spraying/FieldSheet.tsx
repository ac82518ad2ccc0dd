import { CheckField, NumberField, SelectField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import { Slide } from "./Slide";
import type { Typed } from "./wish";
import type { WishFormProps } from "./WishForm";

/** Which field, how the strips lie, and where it is filled. */
export function FieldSheet({ form, p, mine }: WishFormProps) {
  const u = useUnits();
  const fixed = mine.done.length > 0;
  const field = (name: keyof Typed) => ({ ...form.register(name), wrong: form.wrong(name) });
  return (
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
      <div className="row row-cols-2 gx-3">
        <NumberField label="Sections switched alone" unit="" {...field("sections")} disabled={fixed} />
        <NumberField label="Turn" unit="s" {...field("turn_s")} />
      </div>
      <CheckField label="Passes along slanting edges too" {...form.register("edges")} disabled={fixed} />
      <CheckField label="A pass is not broken off" {...form.register("whole_pass")} />
      <Refills form={form} p={p} />
      <CheckField label="A flight ends at the near end of a pass" {...form.register("end_at_start")} />
    </Sheet>
  );
}

/** Take-off places besides the job's where the truck may stand: each flight takes the nearest. */
function Refills({ form, p }: Pick<WishFormProps, "form" | "p">) {
  const others = (p.places ?? []).filter((x) => !x.job);
  if (others.length === 0) return null;
  return (
    <fieldset className="field">
      <legend className="fs-6 fw-semibold">The truck may also stand at</legend>
      {others.map((x) => (
        <CheckField key={x.id} label={x.name} value={x.id} {...form.register("refills")} />
      ))}
    </fieldset>
  );
}

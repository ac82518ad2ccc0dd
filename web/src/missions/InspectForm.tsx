import { AreaField, NumberField, SelectField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { CameraField } from "./CameraField";
import type { FormOf } from "./SurveyForm";
import { inspectFigures, unitOf, type TypedInspect } from "./wish";

export interface InspectFormProps {
  form: FormOf<TypedInspect>;
  p: Plan;
  fixed: boolean;
}

/** What is wished of an inspection. */
export function InspectForm({ form, p, fixed }: InspectFormProps) {
  const u = useUnits();
  const shape = form.watch("form");
  const field = (name: keyof TypedInspect) => ({ ...form.register(name), wrong: form.wrong(name) });
  const number = (name: keyof typeof inspectFigures, label: string, hint?: string) => (
    <NumberField label={label} hint={hint} unit={unitOf(u, inspectFigures[name])} {...field(name)} />
  );
  return (
    <fieldset className="vstack gap-3 form" disabled={fixed}>
      {fixed && <Sheet>Part of this plan is flown: its places stay as they are.</Sheet>}
      <Sheet title="What is inspected">
        <SelectField label="On the map" {...field("feature")}>
          <option value="">the first on the map</option>
          {p.features.map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Taken as" {...field("form")}>
          <option value="box">upright walls</option>
          <option value="cylinder">a tower, from all round</option>
          <option value="roof">a roof or panels, from above</option>
          <option value="poles">poles along a line</option>
        </SelectField>
        <div className="two">
          {number("height_m", "Height of its top")}
          {shape !== "roof" && number("from_m", "Lowest wanted")}
          {(shape === "cylinder" || shape === "poles") && number("radius_m", "Radius")}
          {shape === "roof" && number("pitch_deg", "Pitch")}
          {shape === "roof" && number("faces_deg", "It faces, true")}
        </div>
      </Sheet>
      <Sheet title="Pictures">
        <CameraField p={p} {...field("camera")} />
        <div className="two">
          {number("detail_mm", "One pixel shows")}
          {number("safe_m", "Never nearer than")}
          {number("energised_m", "From what is energised", "As its owner sets it; 0: nothing is.")}
          {number("speed_ms", "Speed between pictures")}
          {number("sideways", "Overlap sideways")}
          {number("upwards", "Overlap upwards")}
          {number("card_gb", "Card holds")}
        </div>
      </Sheet>
      <Sheet title="What to look at">
        <AreaField
          label="One to a line"
          hint='After the flight, add "| IMG_0012.jpg" where a picture shows it.'
          {...field("looks")}
        />
      </Sheet>
    </fieldset>
  );
}

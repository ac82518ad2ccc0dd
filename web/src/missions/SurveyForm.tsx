import type { UseFormReturn } from "react-hook-form";
import { Link } from "react-router";
import { CheckField, NumberField, SelectField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { CameraField } from "./CameraField";
import { surveyFigures, unitOf, type TypedSurvey } from "./wish";

export type FormOf<T extends object> = UseFormReturn<T> & { wrong: (name: keyof T) => string | undefined };

export interface SurveyFormProps {
  form: FormOf<TypedSurvey>;
  p: Plan;
  /** Part of it is flown: its lines stay. */
  fixed: boolean;
}

/** What is wished of a survey. */
export function SurveyForm({ form, p, fixed }: SurveyFormProps) {
  const u = useUnits();
  const v = form.watch();
  const field = (name: keyof TypedSurvey) => ({ ...form.register(name), wrong: form.wrong(name) });
  const number = (name: keyof typeof surveyFigures, label: string, hint?: string) => (
    <NumberField label={label} hint={hint} unit={unitOf(u, surveyFigures[name])} {...field(name)} />
  );
  return (
    <fieldset className="vstack gap-3 form" disabled={fixed}>
      {fixed && <Sheet>Part of this plan is flown: its lines stay as they are.</Sheet>}
      <Sheet title="What is pictured">
        <SelectField label="Area or line" {...field("area")}>
          <option value="">the first on the map</option>
          {p.features.map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
        </SelectField>
        {p.feature_shape === "line" && number("width_m", "Width along the line")}
        <CameraField p={p} {...field("camera")} />
        <SelectField label="Height follows from" {...field("by")}>
          <option value="resolution">the resolution of the ground</option>
          <option value="canopy">what grows there</option>
          <option value="height">a height</option>
        </SelectField>
        {v.by === "resolution" && number("gsd_cm", "One pixel shows")}
        {v.by === "height" && number("height_m", "Height over the ground")}
        {v.by === "canopy" && (
          <SelectField
            label="Canopy"
            hint={<Link to="/canopies">The crew's table</Link>}
            {...field("canopy")}
          >
            {p.canopies.map((c) => (
              <option key={c.key} value={c.key}>
                {c.name}: {u.show("length", c.height_m)}
              </option>
            ))}
          </SelectField>
        )}
      </Sheet>
      <Sheet title="Pictures">
        <div className="two">
          {number("side", "Overlap of lines")}
          {number("front", "Overlap along a line")}
          {number("speed_ms", "Speed")}
          {number("shutter", "Shutter")}
          {number("card_gb", "Card holds")}
          <NumberField
            label="Beyond the edge"
            unit={u.label("length")}
            hint="Empty: as all pictures need."
            {...field("buffer_m")}
          />
        </div>
        <CheckField label="Long side of the picture along the flight" {...form.register("turned")} />
        <CheckField label="A second time across" {...form.register("cross")} />
      </Sheet>
      <Sheet title="Lines and ground">
        <SelectField label="Lines lie" {...field("direction")}>
          <option value="best">for the fewest turns</option>
          <option value="across-wind">across the wind</option>
          <option value="along">along a direction</option>
        </SelectField>
        {v.direction === "along" && number("bearing_deg", "Direction, true")}
        <SelectField label="The ground" {...field("relief")}>
          <option value="split">in parts of at most 30 m relief</option>
          <option value="follow">followed, up and down</option>
          <option value="level">all at one height</option>
        </SelectField>
        {p.winged && (
          <div className="two">
            {number("turn_m", "Turn radius")}
            {number("lead_m", "Straight before a line")}
          </div>
        )}
      </Sheet>
    </fieldset>
  );
}

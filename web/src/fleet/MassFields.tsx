import { DateField } from "../parts/DateField";
import { NumberField } from "../parts/Field";
import { useUnits } from "../parts/units";

interface Form {
  register: (name: "mass" | "weighed_on") => object;
  wrong: (name: "mass" | "weighed_on") => string | undefined;
}

/** What an aircraft usually takes off with, and when it was weighed. */
export function MassFields({ f }: { f: Form }) {
  const u = useUnits();
  return (
    <div className="two" style={{ gap: "0 1rem" }}>
      <NumberField
        label="Usual take-off mass"
        unit={u.label("mass")}
        {...f.register("mass")}
        wrong={f.wrong("mass")}
        hint="Weighed with packs and payload. Without it the gate says Stop."
      />
      <DateField label="Weighed on" {...f.register("weighed_on")} wrong={f.wrong("weighed_on")} />
    </div>
  );
}

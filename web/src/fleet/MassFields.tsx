import { DateField } from "../parts/DateField";
import { NumberField } from "../parts/Field";
import { parseInRange } from "../parts/number";
import { shownQuantity } from "../parts/typed";
import { useUnits, type Units } from "../parts/units";

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

/** A mass as its box shows it. */
export const shownMass = (kg: number | null | undefined, u: Units) => shownQuantity(u, "mass", kg, 2);

/** Reads a typed mass; empty is not known, and what nobody touched stays what it was. */
export function readMass(
  text: string,
  u: Units,
  was?: number | null,
): { ok: true; kg: number | null } | { ok: false; sentence: string } {
  if (was != null && text === shownMass(was, u)) return { ok: true, kg: was };
  const p = parseInRange(text, u.value("mass", 0.05), u.value("mass", 1000), u.label("mass"));
  if (p.ok) return { ok: true, kg: u.toBase("mass", p.value) };
  return p.empty ? { ok: true, kg: null } : { ok: false, sentence: p.sentence };
}

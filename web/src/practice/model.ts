import { z } from "zod";
import type { Schemas } from "../api/client";
import { parseInRange } from "../parts/number";
import { typedNumber } from "../parts/typed";
import type { Quantity, Units } from "../parts/units";

type Kept = Schemas["PracticeKept"];
type School = Kept["schools"][number];
type Figure = School["numbers"][number];

const quantities: Record<string, Quantity> = { m: "length", "m/s": "speed" };

/** The unit in which a crew reads a figure; those it has no choice of stay as they are. */
export function unitOf(n: Figure, u: Units): string {
  const q = quantities[n.unit];
  return q ? u.label(q) : n.unit;
}

const round = (v: number) => String(+v.toFixed(2));

function shown(n: Figure, base: number, u: Units): string {
  const q = quantities[n.unit];
  return round(q ? u.value(q, base) : base);
}

/** The school that is kept. */
export function schoolOf(p: Kept, id = p.chosen.school): School | undefined {
  return p.schools.find((s) => s.id === id);
}

/** The figures of a school as they are kept, else as they are usual, for the form. */
export function figures(p: Kept, school: School, u: Units): Record<string, string> {
  const kept = school.id === p.chosen.school ? (p.chosen.numbers ?? {}) : {};
  return Object.fromEntries(school.numbers.map((n) => [n.key, shown(n, kept[n.key] ?? n.usual, u)]));
}

/** What is kept, in one line. */
export function keptInWords(p: Kept, u: Units): string {
  const school = schoolOf(p);
  if (!school) return p.chosen.school;
  const of = figures(p, school, u);
  const numbers = school.numbers.map((n) => `${n.label.toLowerCase()} ${of[n.key]} ${unitOf(n, u)}`);
  return numbers.length === 0 ? school.says : `${school.says}: ${numbers.join(", ")}`;
}

/** The form of a school: its figures in the crew's units inside their range, and why. */
export function formOf(school: School, u: Units) {
  const one = (n: Figure) =>
    z.string().superRefine((v, ctx) => {
      const r = read(n, v, u);
      if (!r.ok) ctx.addIssue({ code: "custom", message: r.empty ? "Enter a number." : r.sentence });
    });
  return z.object({
    figures: z.object(Object.fromEntries(school.numbers.map((n) => [n.key, one(n)]))),
    why: z.string().trim().min(3, "Say why, in a few words: it goes on record."),
  });
}

function read(n: Figure, text: string, u: Units) {
  return parseInRange(text, +shown(n, n.min, u), +shown(n, n.max, u), unitOf(n, u));
}

/** The figures of the form in base units, held inside the range that rounding may leave. */
export function toNumbers(school: School, of: Record<string, string>, u: Units): Record<string, number> {
  const out: Record<string, number> = {};
  for (const n of school.numbers) {
    const text = of[n.key] ?? "";
    if (text === shown(n, n.usual, u)) continue; // as usual: nothing is rounded on the way
    const r = read(n, text, u);
    if (!r.ok) continue;
    const q = quantities[n.unit];
    out[n.key] = Math.min(n.max, Math.max(n.min, q ? u.toBase(q, r.value) : r.value));
  }
  return out;
}

/** A calibration of the compass, as it is typed. */
export const calibrationForm = z.object({
  site_id: z.string().transform((id) => id || null),
  metal_m: typedNumber(0, 10_000, "m"),
  note: z.string(),
});

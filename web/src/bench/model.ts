import type { Schemas } from "../api/client";
import { parseInRange } from "../parts/number";

type Input = Schemas["CalculatorInput"];
type Unit = Schemas["Unit"];

/** The other unit of a quantity: metric for US, US for metric; undefined where there is none. */
export function otherUnit(units: Unit[], code: string): Unit | undefined {
  const own = units.find((u) => u.code === code);
  const pairs: Record<string, string> = {
    m: "ft",
    "m/s": "mph",
    kg: "lb",
    degC: "degF",
    L: "gal",
    hPa: "inHg",
    km: "mi",
  };
  const to = pairs[code];
  return own && to ? units.find((u) => u.code === to && u.quantity === own.quantity) : undefined;
}

/** How a unit is shown: its label from the server's table, or the code itself. */
export function unitLabel(units: Unit[], code: string): string {
  return (
    units.find((u) => u.code === code)?.label ?? (code === "kg/m3" ? "kg/m³" : code === "mohm" ? "mΩ" : code)
  );
}

/** A value of a base unit in another one. */
export const inUnit = (u: Unit, base: number) => (base - u.offset) / u.factor;

/** The inputs as typed: from the address, else the defaults. */
export function typedInputs(inputs: Input[], params: URLSearchParams): Record<string, string> {
  return Object.fromEntries(inputs.map((i) => [i.name, params.get(i.name) ?? String(i.default)]));
}

/** What is typed as numbers, or what is wrong with it; units may be typed behind a number. */
export function readInputs(
  inputs: Input[],
  typed: Record<string, string>,
  units: Unit[],
): { values: Record<string, number>; wrong: Record<string, string> } {
  const values: Record<string, number> = {};
  const wrong: Record<string, string> = {};
  for (const i of inputs) {
    const p = parseInRange(typed[i.name] ?? "", i.least, i.most, unitLabel(units, i.unit));
    if (p.ok) values[i.name] = p.value;
    else wrong[i.name] = p.empty ? "Enter a number." : p.sentence;
  }
  return { values, wrong };
}

/** A number as a person reads it, with so many digits after the point. */
export function shown(value: number, digits: number): string {
  return value.toLocaleString("en-CA", {
    maximumFractionDigits: digits,
    minimumFractionDigits: Math.min(digits, 2),
    useGrouping: false,
  });
}

/** Calculators with all the words, in their groups. */
export function grouped(
  d: Schemas["Calculators"],
  words: string,
): { group: string; calculators: Schemas["Calculator"][] }[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean);
  return d.groups
    .map((group) => ({
      group,
      calculators: d.calculators.filter(
        (c) =>
          c.group === group &&
          all.every((w) => `${c.title} ${c.group} ${c.formula}`.toLowerCase().includes(w)),
      ),
    }))
    .filter((g) => g.calculators.length > 0);
}

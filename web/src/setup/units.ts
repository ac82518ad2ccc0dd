import type { Schemas } from "../api/client";

/** The unit in which each quantity is shown. */
export interface UnitForm {
  length: Schemas["Units"]["length"];
  speed: Schemas["Units"]["speed"];
  mass: Schemas["Units"]["mass"];
  temperature: Schemas["Units"]["temperature"];
  volume: Schemas["Units"]["volume"];
}

export const metric: UnitForm = { length: "m", speed: "m/s", mass: "kg", temperature: "degC", volume: "L" };
export const us: UnitForm = { length: "ft", speed: "mph", mass: "lb", temperature: "degF", volume: "gal" };

export type Preset = "metric" | "us" | "own";

/** Which usual set of units these are; own when they are mixed. */
export function presetOf(u: UnitForm): Preset {
  const is = (set: UnitForm) => (Object.keys(set) as (keyof UnitForm)[]).every((k) => u[k] === set[k]);
  return is(metric) ? "metric" : is(us) ? "us" : "own";
}

export const choices: { name: keyof UnitForm; label: string; options: [string, string][] }[] = [
  {
    name: "length",
    label: "Heights and distances",
    options: [
      ["m", "metres"],
      ["ft", "feet"],
    ],
  },
  {
    name: "speed",
    label: "Wind and speed",
    options: [
      ["m/s", "metres per second"],
      ["mph", "miles per hour"],
      ["kt", "knots"],
    ],
  },
  {
    name: "mass",
    label: "Mass",
    options: [
      ["kg", "kilograms"],
      ["lb", "pounds"],
    ],
  },
  {
    name: "temperature",
    label: "Temperature",
    options: [
      ["degC", "°C"],
      ["degF", "°F"],
    ],
  },
  {
    name: "volume",
    label: "Liquid",
    options: [
      ["L", "litres"],
      ["gal", "US gallons"],
    ],
  },
];

import type { UseFormRegister } from "react-hook-form";
import type { Schemas } from "../api/client";
import { SelectField } from "../parts/Field";

export interface UnitForm {
  length: Schemas["Units"]["length"];
  speed: Schemas["Units"]["speed"];
  mass: Schemas["Units"]["mass"];
  temperature: Schemas["Units"]["temperature"];
  volume: Schemas["Units"]["volume"];
}

export const metric: UnitForm = { length: "m", speed: "m/s", mass: "kg", temperature: "degC", volume: "L" };

const choices: { name: keyof UnitForm; label: string; options: [string, string][] }[] = [
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

export function UnitFields({ register }: { register: UseFormRegister<UnitForm> }) {
  return (
    <div className="two" style={{ gap: "0 1rem" }}>
      {choices.map((c) => (
        <SelectField key={c.name} label={c.label} {...register(c.name)}>
          {c.options.map(([v, l]) => (
            <option key={v} value={v}>
              {l}
            </option>
          ))}
        </SelectField>
      ))}
    </div>
  );
}

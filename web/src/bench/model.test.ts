import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { rememberUnits } from "../parts/number";
import { grouped, inUnit, otherUnit, readInputs, shown, typedInputs, unitLabel } from "./model";

const units: Schemas["Unit"][] = [
  { code: "m", quantity: "length", label: "m", factor: 1, offset: 0, decimals: 1 },
  { code: "ft", quantity: "length", label: "ft", factor: 0.3048, offset: 0, decimals: 0 },
  { code: "degC", quantity: "temperature", label: "°C", factor: 1, offset: 0, decimals: 0 },
  { code: "degF", quantity: "temperature", label: "°F", factor: 5 / 9, offset: (-32 * 5) / 9, decimals: 0 },
];
const inputs: Schemas["CalculatorInput"][] = [
  { name: "height", label: "Height", unit: "m", default: 30, least: 0.5, most: 500 },
  { name: "temp", label: "Temperature", unit: "degC", default: 20, least: -60, most: 60 },
];

it("shows the other system beside the own", () => {
  expect(inUnit(otherUnit(units, "m")!, 30)).toBeCloseTo(98.425, 3);
  expect(inUnit(otherUnit(units, "degC")!, 20)).toBeCloseTo(68, 9);
  expect(otherUnit(units, "W")).toBeUndefined();
  expect([unitLabel(units, "degC"), unitLabel(units, "kg/m3"), unitLabel(units, "W")]).toEqual([
    "°C",
    "kg/m³",
    "W",
  ]);
});

it("keeps the inputs in the address, and the defaults elsewhere", () => {
  expect(typedInputs(inputs, new URLSearchParams("height=12"))).toEqual({ height: "12", temp: "20" });
});

it("takes a unit behind a number, and says what cannot be", () => {
  rememberUnits(units);
  expect(readInputs(inputs, { height: "98.4252 ft", temp: "20" }, units).values.height).toBeCloseTo(30, 4);
  expect(readInputs(inputs, { height: "", temp: "61" }, units)).toEqual({
    values: {},
    wrong: { height: "Enter a number.", temp: "Enter -60 to 60 °C." },
  });
});

it("finds calculators by words, in their groups", () => {
  const c = (key: string, group: string, title: string) => ({
    key,
    group,
    title,
    formula: "x",
    limits: "",
    source: "",
    text: "",
    text_default: "",
    inputs: [],
  });
  const d = { groups: ["Air", "Wind"], calculators: [c("a", "Wind", "Headwind"), c("b", "Air", "Density")] };
  expect(grouped(d, "").map((g) => g.group)).toEqual(["Air", "Wind"]);
  expect(grouped(d, "head wind").flatMap((g) => g.calculators.map((x) => x.key))).toEqual(["a"]);
  expect(shown(1521.4, 0)).toBe("1521");
  expect(shown(3.78, 2)).toBe("3.78");
});

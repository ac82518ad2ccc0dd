import { expect, it } from "vitest";
import type { Units } from "../parts/units";
import { rulesForm } from "./model";

const feet = {
  value: (_: string, v: number) => v / 0.3048,
  toBase: (_: string, v: number) => v * 0.3048,
  label: () => "ft",
} as unknown as Units;

it("keeps how far the crew sees to the last digit while nobody touches it", () => {
  const { shown, schema } = rulesForm({ chosen: "us-small", sight_m: 800 }, feet);
  expect(shown.sight_m).toBe("2625");
  expect(schema.parse({ ...shown, pack: "eu-open" })).toEqual({ pack: "eu-open", sight_m: 800 });
  expect(schema.parse({ ...shown, sight_m: "2000" }).sight_m).toBeCloseTo(609.6, 9);
});

it("takes 50 m to 5 km in the crew's units", () => {
  const { shown, schema } = rulesForm({ chosen: "us-small", sight_m: 800 }, feet);
  for (const [text, ok] of [
    ["164.05", true],
    ["164", false],
    ["16404", true],
    ["16405", false],
    ["", false],
    ["far", false],
  ] as const)
    expect(schema.safeParse({ ...shown, sight_m: text }).success, text).toBe(ok);
});

import { describe, expect, it } from "vitest";
import type { Units } from "../parts/units";
import { answered, featureForm, featureTyped } from "./featureForm";
import { blank, type Feature } from "./kinds";

const metric = {
  label: () => "m",
  value: (_: string, v: number) => v,
  toBase: (_: string, v: number) => v,
} as Partial<Units> as Units;
const feet = {
  label: () => "ft",
  value: (_: string, v: number) => v / 0.3048,
  toBase: (_: string, v: number) => v * 0.3048,
} as Partial<Units> as Units;
const at = [
  { lat: 0.001, lon: 0.002 },
  { lat: 0.003, lon: 0.002 },
];
const wires: Feature = { ...blank("w", "wires", "line", at), name: "Line", height_m: 11.4, sigma_m: 0.7 };
const faults = (f: Feature, change: object) =>
  (featureForm(f, metric).safeParse({ ...featureTyped(f, metric), ...change }).error?.issues ?? []).map(
    (i) => `${i.path.join(".")}: ${i.message}`,
  );

describe("a thing on the map in its form", () => {
  it("is the same again when nothing is typed", () => {
    const same = featureForm(wires, metric).parse(featureTyped(wires, metric));
    expect(same).toMatchObject({ name: "Line", height_m: 11.4, sigma_m: 0.7, buffer_m: 15, places: at });
  });
  it("is typed in the crew's units", () => {
    const typed = featureTyped(wires, feet);
    expect(typed.height_m).toBe("37.4");
    expect(featureForm(wires, feet).parse({ ...typed, height_m: "40" }).height_m).toBeCloseTo(12.192, 6);
  });
  it("keeps a height that nobody knows as unknown, and asks none of what does not stand", () => {
    const typed = { ...featureTyped(wires, metric), height_m: "" };
    expect(featureForm(wires, metric).parse(typed).height_m).toBeNull();
    const work = blank("a", "area", "area", [...at, { lat: 0.003, lon: 0.005 }]);
    expect(featureForm(work, metric).parse(featureTyped(work, metric)).height_m).toBeUndefined();
  });
  it("says at its field what cannot be", () => {
    expect(faults(wires, { height_m: "1001" })[0]).toMatch(/^height_m: /);
    expect(faults(wires, { sigma_m: "-1" })[0]).toMatch(/^sigma_m: /);
    expect(faults(wires, { free_deg: "90 400" })).toEqual([
      "free_deg: Headings are 0 to 359, with spaces between.",
    ]);
    expect(faults(wires, { places: "0.001, 0.002" })).toEqual(["places: At least 2 are needed."]);
    expect(faults(wires, { places: "0.001, 0.002\nnowhere" })[0]).toMatch(/^places: Line 2/);
  });
  it("takes an answer back that is given twice", () => {
    const once = answered(undefined, "firm", false);
    expect(once).toMatchObject({ firm: false, flat: null });
    expect(answered(once, "firm", false).firm).toBeNull();
    expect(answered(once, "firm", true).firm).toBe(true);
  });
});

import { describe, expect, it } from "vitest";
import { answered, featureForm, featureTyped } from "./featureForm";
import { blank, type Feature } from "./kinds";

const at = [
  { lat: 0.001, lon: 0.002 },
  { lat: 0.003, lon: 0.002 },
];
const wires: Feature = { ...blank("w", "wires", "line", at), name: "Line", height_m: 11.4, sigma_m: 0.7 };
const faults = (f: Feature, change: object) =>
  (featureForm(f).safeParse({ ...featureTyped(f), ...change }).error?.issues ?? []).map(
    (i) => `${i.path.join(".")}: ${i.message}`,
  );

describe("a thing on the map in its form", () => {
  it("is the same again when nothing is typed", () => {
    const same = featureForm(wires).parse(featureTyped(wires));
    expect(same).toMatchObject({ name: "Line", height_m: 11.4, sigma_m: 0.7, buffer_m: 15, places: at });
  });
  it("keeps what nobody touched to the last digit", () => {
    const odd = { ...wires, height_m: 17.83456, elevation: 211.119 };
    expect(featureForm(odd).parse({ ...featureTyped(odd), name: "Oak" })).toMatchObject({
      name: "Oak",
      height_m: 17.83456,
      sigma_m: 0.7,
      buffer_m: 15,
      elevation: 211.119,
    });
  });
  it("takes a height as it is typed", () => {
    const typed = featureTyped(wires);
    expect(featureForm(wires).parse({ ...typed, height_m: "12,5" }).height_m).toBe(12.5);
    expect(featureForm(wires).parse({ ...typed, height_m: " 12.50 m" }).height_m).toBe(12.5);
  });
  it("keeps a height that nobody knows as unknown, and asks none of what does not stand", () => {
    const typed = { ...featureTyped(wires), height_m: "" };
    expect(featureForm(wires).parse(typed).height_m).toBeNull();
    const work = blank("a", "area", "area", [...at, { lat: 0.003, lon: 0.005 }]);
    expect(featureForm(work).parse(featureTyped(work)).height_m).toBeUndefined();
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

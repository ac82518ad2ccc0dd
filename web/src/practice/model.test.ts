import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import type { Units } from "../parts/units";
import { calibrationForm, figures, formOf, keptInWords, schoolOf, toNumbers } from "./model";

const feet: Units = {
  value: (q, b) => (q === "length" ? b / 0.3048 : q === "speed" ? b / 0.44704 : b),
  toBase: (q, v) => (q === "length" ? v * 0.3048 : q === "speed" ? v * 0.44704 : v),
  label: (q) => (q === "length" ? "ft" : "mph"),
  show: (q, b) => `${b} ${q}`,
};

const margin = (chosen: Schemas["PracticeChoice"]): Schemas["PracticeKept"] => ({
  id: "return-margin",
  asks: "How much?",
  default: "larger",
  why: "because",
  where: "way home",
  own: true,
  overrule: [],
  chosen,
  schools: [
    {
      id: "larger",
      says: "The larger",
      numbers: [
        { key: "m", label: "Metres", unit: "m", usual: 10, min: 5, max: 100 },
        { key: "percent", label: "Percent", unit: "%", usual: 20, min: 0, max: 100 },
      ],
    },
    { id: "none", says: "Nothing", numbers: [] },
  ],
});
const larger = margin({ school: "larger" }).schools[0]!;

describe("a practice", () => {
  it("is said in the crew's units", () => {
    expect(keptInWords(margin({ school: "larger", numbers: { percent: 30 } }), feet)).toBe(
      "The larger: metres 32.81 ft, percent 30 %",
    );
    expect(keptInWords(margin({ school: "none" }), feet)).toBe("Nothing");
    expect(keptInWords(margin({ school: "gone" }), feet)).toBe("gone");
    expect(schoolOf(margin({ school: "gone" }))).toBeUndefined();
  });
  it("starts with what is kept, another school with what is usual", () => {
    expect(figures(margin({ school: "larger", numbers: { m: 30.48 } }), larger, feet)).toEqual({
      m: "100",
      percent: "20",
    });
    expect(figures(margin({ school: "none" }), larger, feet)).toEqual({ m: "32.81", percent: "20" });
  });
  it.each([
    ["100", "25", true],
    ["16.4", "0", true],
    ["16.3", "20", false],
    ["328.08", "100", true],
    ["329", "20", false],
    ["32,8", "20", true],
    ["", "20", false],
    ["heavy", "20", false],
    ["100", "101", false],
  ])("takes %s ft and %s %%: %s", (m, percent, ok) => {
    const r = formOf(larger, feet).safeParse({ figures: { m, percent }, why: "tall trees" });
    expect(r.success).toBe(ok);
  });
  it("asks why", () => {
    const r = formOf(larger, feet).safeParse({ figures: { m: "100", percent: "20" }, why: "  " });
    expect(r.success).toBe(false);
  });
  it("sends base units inside the range, and leaves out what is usual", () => {
    expect(toNumbers(larger, { m: "100", percent: "20" }, feet)).toEqual({
      m: expect.closeTo(30.48, 6) as number,
    });
    expect(toNumbers(larger, { m: "328.08", percent: "0" }, feet).m).toBeLessThanOrEqual(100);
    expect(toNumbers(larger, { m: "16.4", percent: "0" }, feet).m).toBeGreaterThanOrEqual(5);
    expect(toNumbers(larger, { m: "32.81", percent: "20" }, feet)).toEqual({});
  });
});

it("leaves unknown how far the nearest metal was, and which site it was at", () => {
  expect(calibrationForm.parse({ site_id: "", metal_m: "", note: "" })).toEqual({
    site_id: null,
    metal_m: null,
    note: "",
  });
  expect(calibrationForm.parse({ site_id: "s", metal_m: "15", note: "" }).metal_m).toBe(15);
  expect(calibrationForm.safeParse({ site_id: "", metal_m: "10001", note: "" }).success).toBe(false);
});

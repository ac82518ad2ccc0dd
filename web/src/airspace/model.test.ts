import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import type { Units } from "../parts/units";
import { authorisationForm, besides, levels, type Zone } from "./model";

const show = (_: "length", m: number) => `${m} m`;
const zone = (z: Partial<Zone>) =>
  ({ floor_m: null, floor_datum: "ground", ceiling_m: null, ceiling_datum: "ground", ...z }) as Zone;

describe("zones", () => {
  it("say from where to where they reach, and above what", () => {
    expect(levels(zone({}), show)).toBe("ground to no ceiling given");
    expect(levels(zone({ floor_m: 0, ceiling_m: 120 }), show)).toBe("ground to 120 m");
    expect(
      levels(
        zone({ floor_m: 300, floor_datum: "sea", ceiling_m: 2000, ceiling_datum: "flight-level" }),
        show,
      ),
    ).toBe("300 m above the sea to 2000 m in the standard atmosphere");
  });
  it("are not said twice", () => {
    const a = {
      zones: [{ sentence: "in it" }],
      findings: [{ sentence: "in it" }, { sentence: "looked up long ago" }],
    } as Pick<Schemas["Airspace"], "findings" | "zones">;
    expect(besides(a).map((f) => f.sentence)).toEqual(["looked up long ago"]);
  });
});

describe("an authorisation as it is typed", () => {
  const feet = {
    value: (_: string, v: number) => v / 0.3048,
    toBase: (_: string, v: number) => v * 0.3048,
    label: () => "ft",
  } as unknown as Units;
  const form = authorisationForm(feet, "America/Los_Angeles");
  const typed = { ceiling_m: "400", from: "2026-06-10 08:00", to: "2026-06-10 12:00", number: "" };
  it("is kept in metres and in world time", () => {
    const v = form.parse(typed);
    expect(v.ceiling_m).toBeCloseTo(121.92, 9);
    expect(v).toMatchObject({ from: "2026-06-10T15:00:00.000Z", to: "2026-06-10T19:00:00.000Z" });
  });
  it("says what is missing at its field", () => {
    const at = (t: Partial<typeof typed>) =>
      form.safeParse({ ...typed, ...t }).error?.issues.map((i) => [i.path[0], i.message]);
    expect(at({ ceiling_m: "" })).toEqual([["ceiling_m", "Enter the height."]]);
    expect(at({ ceiling_m: "3" })?.[0]?.[0]).toBe("ceiling_m");
    expect(at({ from: "tomorrow", to: "" })).toEqual([
      ["from", "Enter date and time."],
      ["to", "Enter date and time."],
    ]);
  });
});

import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { besides, levels, type Zone } from "./model";

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

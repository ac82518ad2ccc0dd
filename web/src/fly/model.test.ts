import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { landingCalls } from "./model";

const type = (landing_call: Schemas["TypeEntry"]["landing_call"]) =>
  ({
    landing_call,
    profile: {
      limits: { land_by_percent: 25, land_by_cell_mv: 3550, planned_minutes: 12 },
      packs: { cells: 14 },
    },
  }) as unknown as Schemas["TypeEntry"];

describe("what calls the landing", () => {
  it.each([
    ["percent", "25 %", "or 49.7 V; 3.55 V a cell under load"],
    ["volts", "49.7 V", "or 25 %; 3.55 V a cell under load"],
    ["minutes", "12 min", "or 25 %, 49.7 V; 3.55 V a cell under load"],
  ] as const)("%s", (call, first, then) => expect(landingCalls(type(call))).toEqual({ first, then }));
});

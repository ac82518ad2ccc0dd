import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { commonMoves, packInHand, sorted, summary } from "./model";

type Pack = Schemas["Pack"];
const pack = (label: string, more: Partial<Pack> = {}) =>
  ({ label, moves: [], percent: null, ...more }) as unknown as Pack;

describe("several packs", () => {
  it("go where all of them may go", () => {
    const flown = pack("A", { moves: ["charging", "charged", "storage", "quarantine"] });
    const stored = pack("B", { moves: ["charging", "charged", "quarantine"] });
    expect(commonMoves([flown])).toEqual(["charging", "charged", "storage"]);
    expect(commonMoves([flown, stored])).toEqual(["charging", "charged"]);
    expect(commonMoves([])).toEqual([]);
  });
  it("say what became of each", () => {
    const o = (label: string, sentence?: string) => ({
      id: label,
      label,
      was: "flown",
      version: 2,
      sentence,
    });
    const s = summary([o("A"), o("B", "B is hot."), o("C")]);
    expect([s.words, s.refused]).toEqual(["2 packs moved: A, C", ["B is hot."]]);
    expect(summary([o("A")]).words).toBe("1 pack moved: A");
  });
});

describe("the order of the rack", () => {
  const packs = [
    pack("L10", { percent: 50, health_percent: 90, spread_mv: 5 }),
    pack("L2", { percent: 99, health_percent: 70 }),
    pack("L1", { health_percent: null }),
  ];
  it.each([
    ["label", ["L1", "L2", "L10"]],
    ["level", ["L2", "L10", "L1"]],
    ["health", ["L2", "L10", "L1"]],
    ["spread", ["L10", "L1", "L2"]],
  ] as const)("%s", (by, want) => expect(sorted(packs, by).map((p) => p.label)).toEqual(want));
});

it("the pack in hand is picked by its label, or what is wrong with it is said", () => {
  const one = (label: string, more: Partial<Pack> = {}) =>
    pack(label, {
      id: label,
      serial: `S-${label}`,
      state: "charged",
      fits: ["Dray 30"],
      fitted_to: "",
      ...more,
    });
  const d1 = one("D1");
  const rack = [
    d1,
    one("D9", { state: "quarantine" }),
    one("L1", { fits: ["Lantern 4"] }),
    one("D2", { fitted_to: "Dray Two" }),
  ];
  const read = (code: string) => packInHand(rack, [d1], "Dray 30", code);
  expect(read("s-d1 ")).toEqual({ id: "D1" });
  expect(read("D1")).toEqual({ id: "D1" });
  expect(read("D9")).toEqual({ sentence: "D9 is in quarantine: it does not fly now. Take another one." });
  expect(read("L1")).toEqual({ sentence: "L1 does not fit Dray 30: put it back." });
  expect(read("D2")).toEqual({ sentence: "D2 is fitted to Dray Two." });
  expect(read("Z1")).toEqual({ sentence: "No pack of this crew carries the label Z1." });
});

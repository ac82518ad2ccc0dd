import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { commonMoves, sorted, summary } from "./model";

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

import { describe, expect, it } from "vitest";
import { healthRows, smoothed, weakest } from "./health";

const at = (day: number) => `2026-05-${String(day).padStart(2, "0")}T08:00:00Z`;
const pack = (id: string, ...percent: number[]) => ({
  id,
  label: id.toUpperCase(),
  points: percent.map((p, i) => ({ at: at(i + 1), percent: p })),
});

describe("health of the rack", () => {
  it("takes the median of five, so that one bad measurement does not show", () => {
    expect(smoothed(pack("a", 98, 97, 40, 97, 96, 96)).map((m) => m.percent)).toEqual([
      98, 97.5, 97, 97, 97, 96,
    ]);
    expect(smoothed(pack("a"))).toEqual([]);
  });
  it("has one row for each time, with every pack that was measured then", () => {
    const rows = healthRows([pack("a", 99, 98), pack("b", 90)]);
    expect(rows).toEqual([
      { at: Date.parse(at(1)), a: 99, b: 90 },
      { at: Date.parse(at(2)), a: 98.5 },
    ]);
  });
  it("names the weakest first, never one that was not measured", () => {
    expect(weakest([pack("a", 99), pack("b", 81), pack("c"), pack("d", 81)], 2)).toEqual([
      { id: "b", label: "B", now: 81 },
      { id: "d", label: "D", now: 81 },
    ]);
  });
});

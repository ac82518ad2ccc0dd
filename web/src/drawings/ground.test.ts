import { describe, expect, it } from "vitest";
import { axis, climbs, flownOver, pathOf } from "./ground";

const steps = (...ground: (number | null)[]) => ground.map((g, i) => ({ along_m: i * 10, ground_m: g }));
const same = (v: number) => v;

describe("ground from the side", () => {
  it("has room for ground, what stands and what is flown", () => {
    const top = { id: "t", name: "mast", from_m: 1, to_m: 2, foot_m: 205, top_m: 240, sigma_m: 2 };
    const a = axis({ steps: steps(200, 210, 205), length_m: 20, tops: [top] }, (g) => g + 30);
    expect(a.low).toBeLessThan(200);
    expect(a.high).toBeGreaterThan(244);
    expect(a.ticks.length).toBeGreaterThan(2);
    expect(a.ticks.length).toBeLessThan(8);
    expect(a.ticks.every((t) => t >= a.low && t <= a.high)).toBe(true);
  });
  it("draws nothing of what nobody knows", () => {
    expect(axis({ steps: steps(null, null), length_m: 10, tops: [] }).ticks).toEqual([]);
    const broken = steps(1, 2, null, 3, 4, null, 5);
    expect(pathOf(broken, same, same, 0).match(/Z/g)).toHaveLength(2);
    expect(flownOver(broken, (g) => g + 1, same, same)).toBe("M0.0 2.0L10.0 3.0M30.0 4.0L40.0 5.0");
  });
  it("sums rises and falls", () => {
    expect(climbs(steps(10, 14, null, 12, 20))).toEqual({ low: 10, high: 20, up: 12, down: 2 });
    expect(climbs(steps(null))).toBeUndefined();
  });
});

import { describe, expect, it } from "vitest";
import { type Label, meet, placeLabels } from "./labels";

const sheet = { left: 0, top: 0, width: 600, height: 400 };

/** The same numbers in every run. */
function numbers(seed: number) {
  let s = seed;
  return () => (s = (s * 16807) % 2147483647) / 2147483647;
}

describe("labels", () => {
  it("never lie on each other, on what is taken, or outside", () => {
    for (let seed = 1; seed < 60; seed++) {
      const r = numbers(seed * 7919);
      const labels: Label[] = Array.from({ length: 40 }, (_, i) => ({
        key: `${i}`,
        x: r() * 640 - 20,
        y: r() * 440 - 20,
        width: 20 + r() * 140,
        height: 18,
        rank: Math.floor(r() * 4),
      }));
      const taken = [{ left: r() * 500, top: r() * 300, width: 90, height: 90 }];
      const boxes = [...placeLabels(labels, taken, sheet).values()];
      expect(boxes.length).toBeGreaterThan(5);
      const wrong = boxes.filter(
        (b, i) =>
          b.left < 0 ||
          b.left + b.width > 600 ||
          b.top < 0 ||
          b.top + b.height > 400 ||
          [...taken, ...boxes.slice(i + 1)].some((o) => meet(b, o)),
      );
      expect(wrong, `seed ${seed}`).toEqual([]);
    }
  });
  it("give way by rank, and stand above their place where there is room", () => {
    const at = (key: string, rank: number): Label => ({ key, x: 300, y: 200, width: 100, height: 20, rank });
    const got = placeLabels([at("minor", 0), at("major", 5)], [], sheet);
    expect(got.get("major")).toEqual({ left: 250, top: 172, width: 100, height: 20 });
    expect(got.get("minor")!.top).toBeGreaterThan(200);
  });
  it("are left out where there is no room", () => {
    const crowd = Array.from({ length: 200 }, (_, i) => ({
      key: `${i}`,
      x: 300,
      y: 200,
      width: 80,
      height: 20,
      rank: i,
    }));
    const got = placeLabels(crowd, [], sheet);
    expect(got.size).toBeGreaterThan(7);
    expect(got.size).toBeLessThan(40);
    expect(got.has("199")).toBe(true);
    expect(got.has("0")).toBe(false);
  });
});

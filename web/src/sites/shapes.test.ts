import { describe, expect, it } from "vitest";
import type { Feature } from "./kinds";
import { apart, hull, lee, middle } from "./shapes";

const p = (lat: number, lon: number) => ({ lat, lon });
const mast: Feature = {
  id: "m",
  kind: "obstacle",
  name: "mast",
  shape: "point",
  places: [p(46.31, -119.7)],
  measured: "",
  buffer_m: 5,
  height_m: 20,
};

describe("shapes of a site", () => {
  it("name an area in its middle and a line half way along it", () => {
    expect(middle({ shape: "point", places: [p(1, 2)] })).toEqual(p(1, 2));
    expect(middle({ shape: "area", places: [p(0, 0), p(0, 4), p(2, 4)] })).toEqual(p(1, 2));
    const half = middle({ shape: "line", places: [p(0, 0), p(0, 0.001), p(0, 0.004)] })!;
    expect(half.lon).toBeCloseTo(0.002, 6);
    expect(middle({ shape: "line", places: [] })).toBeUndefined();
  });
  it("measure as the sphere does, over short ways", () => {
    // A minute of latitude is a nautical mile.
    expect(apart(p(46, -119), p(46 + 1 / 60, -119))).toBeCloseTo(1852, -1);
    expect(apart(p(60, 10), p(60, 10 + 1 / 60))).toBeCloseTo(926, -1);
  });
  it("draw rough air downwind, five heights far, and none where nobody knows", () => {
    const rough = lee(mast, { from: 270, ms: 7 })!;
    const east = Math.max(...rough.map((q) => q.lon));
    expect(apart(p(46.31, east), p(46.31, -119.7))).toBeCloseTo(100, 0);
    expect(Math.min(...rough.map((q) => q.lon))).toBeCloseTo(-119.7, 7);
    expect(lee(mast, { from: 270, ms: 4.9 })).toBeUndefined();
    expect(lee(mast)).toBeUndefined();
    expect(lee({ ...mast, height_m: null }, { from: 270, ms: 9 })).toBeUndefined();
    expect(lee({ ...mast, kind: "wires", shape: "line" }, { from: 270, ms: 9 })).toBeUndefined();
  });
  it("outline places by the fewest that hold them all", () => {
    const square = [p(0, 0), p(0, 2), p(2, 2), p(2, 0), p(1, 1), p(0.5, 1.5)];
    expect(hull(square)).toHaveLength(4);
  });
});

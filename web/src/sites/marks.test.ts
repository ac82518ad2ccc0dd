import { describe, expect, it } from "vitest";
import { kinds } from "./kinds";
import { kindMarks, legMarks, ofKind, zoneMarks } from "./marks";
import type { Stroke } from "../parts/strokes";

/** All but the colour. */
const shape = ({ width, dash, opacity = 1, fill }: Stroke) =>
  JSON.stringify([width, dash, opacity, fill?.startsWith("#") ? fill : !!fill]);

describe("marks of a map", () => {
  it("tells areas, lines and points of two kinds apart without colour", () => {
    for (const of of ["area", "line", "point"] as const) {
      const drawn = kinds.filter((k) => k.shapes.includes(of)).map((k) => shape(kindMarks[k.kind]));
      expect(new Set(drawn).size, of).toBe(drawn.length);
    }
  });
  it("tells a zone that stops from all others without colour", () => {
    expect(shape(zoneMarks.stop)).not.toBe(shape(zoneMarks.watch));
    expect(shape(zoneMarks.stop)).not.toBe(shape(zoneMarks.clear));
  });
  it("draws each area with a hatch of its own, or solid where nobody flies through", () => {
    const fills = kinds.filter((k) => k.shapes.includes("area")).map((k) => kindMarks[k.kind].fill);
    expect(fills.every(Boolean)).toBe(true);
    expect(new Set(fills).size).toBe(fills.length);
  });
  it("draws the chosen one heavier than any", () => {
    const most = Math.max(...Object.values(kindMarks).map((m) => m.width));
    for (const { kind } of kinds) expect(ofKind(kind, true).weight).toBeGreaterThan(most);
  });
  it("hands the map what it can draw: empty shapes can be pressed inside, no line means none", () => {
    expect(ofKind("access")).toMatchObject({ fillOpacity: 0, fillColor: undefined, opacity: 0.5 });
    expect(ofKind("area")).toMatchObject({ fillColor: "url(#hatch-area)", color: "var(--bs-body-color)" });
    expect(Object.values(legMarks).every((m) => m.width > 0)).toBe(true);
  });
});

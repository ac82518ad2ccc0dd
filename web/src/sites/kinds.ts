import type { Schemas } from "../api/client";

export type Feature = Schemas["Feature"];
export type Kind = Feature["kind"];
export type Shape = Feature["shape"];

/** What can be drawn, with the shape it gets when it is drawn by hand. */
export const kinds: { kind: Kind; name: string; shapes: Shape[] }[] = [
  { kind: "take-off", name: "Take-off place", shapes: ["point"] },
  { kind: "area", name: "Work area", shapes: ["area"] },
  { kind: "route", name: "Route", shapes: ["line"] },
  { kind: "obstacle", name: "Obstacle", shapes: ["point", "line", "area"] },
  { kind: "wires", name: "Wires", shapes: ["line"] },
  { kind: "no-go", name: "No-go area", shapes: ["area"] },
  { kind: "interference", name: "Interference", shapes: ["point", "line", "area"] },
  { kind: "sensitive", name: "Sensitive place", shapes: ["point", "line", "area"] },
  { kind: "access", name: "Access", shapes: ["line", "point"] },
];

export const kindName = (k: Kind) => kinds.find((x) => x.kind === k)?.name ?? k;
export const least: Record<Shape, number> = { point: 1, line: 2, area: 3 };
export const stands = (k: Kind) => k === "obstacle" || k === "wires";

/** A new feature as it leaves the hand. */
export function blank(id: string, kind: Kind, shape: Shape, places: Schemas["Place"][]): Feature {
  return {
    id,
    kind,
    name: "",
    shape,
    places,
    measured: "",
    buffer_m: kind === "wires" ? 15 : stands(kind) ? 5 : 0,
  };
}

/** Height in words, unknown never hidden. */
export function heightWords(f: Feature): string {
  if (f.height_m == null) return "height not known";
  const s = f.sigma_m ? ` ± ${f.sigma_m.toFixed(1)}` : "";
  return `${f.height_m.toFixed(1)}${s} m${f.measured ? `, ${f.measured}` : ""}`;
}

import type { Schemas } from "../api/client";

type Place = Schemas["Place"];

/** A place in metres east and south of a middle, for a drawing. */
export type Spot = [number, number];

/** Turns places into metres round the middle of the field: right over the few kilometres of a field. */
export function plane(places: Place[]): (p: Place) => Spot {
  const n = Math.max(places.length, 1);
  const lat = places.reduce((s, p) => s + p.lat, 0) / n;
  const lon = places.reduce((s, p) => s + p.lon, 0) / n;
  const north = (6371008.8 * Math.PI) / 180;
  const east = north * Math.cos((lat * Math.PI) / 180);
  return (p) => [(p.lon - lon) * east, -(p.lat - lat) * north];
}

/** The box round spots, with a margin: x, y, width, height. */
export function box(spots: Spot[], margin: number): [number, number, number, number] {
  const xs = spots.map((s) => s[0]);
  const ys = spots.map((s) => s[1]);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return [x - margin, y - margin, Math.max(...xs) - x + 2 * margin, Math.max(...ys) - y + 2 * margin];
}

/** A length for the scale of a drawing so wide: about a quarter of it, round. */
export function scaleLength(width: number): number {
  const most = width / 4;
  const ten = 10 ** Math.floor(Math.log10(most));
  return [5, 2, 1].map((k) => k * ten).find((v) => v <= most) ?? ten;
}

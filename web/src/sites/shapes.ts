import type { Schemas } from "../api/client";
import type { Feature } from "./kinds";

export type Place = Schemas["Place"];
export const at = (p: Place): [number, number] => [p.lat, p.lon];
export const all = (ps: Place[]) => ps.map(at);

/** Where the name of a feature stands: in the middle of an area, half way along a line. */
export function middle(f: Pick<Feature, "shape" | "places">): Place | undefined {
  const [first] = f.places;
  if (!first || f.shape === "point") return first;
  if (f.shape === "area") {
    const lat = f.places.map((p) => p.lat);
    const lon = f.places.map((p) => p.lon);
    return {
      lat: (Math.min(...lat) + Math.max(...lat)) / 2,
      lon: (Math.min(...lon) + Math.max(...lon)) / 2,
    };
  }
  const long = f.places.slice(1).map((p, i) => apart(f.places[i]!, p));
  let left = long.reduce((a, b) => a + b, 0) / 2;
  for (const [i, d] of long.entries()) {
    const [a, b] = [f.places[i]!, f.places[i + 1]!];
    if (left <= d)
      return {
        lat: a.lat + ((b.lat - a.lat) * left) / (d || 1),
        lon: a.lon + ((b.lon - a.lon) * left) / (d || 1),
      };
    left -= d;
  }
  return first;
}

/** Metres between two places that lie near each other. */
export function apart(a: Place, b: Place): number {
  const lat = ((a.lat + b.lat) / 2) * (Math.PI / 180);
  return Math.hypot((a.lat - b.lat) * 111_200, (a.lon - b.lon) * 111_320 * Math.cos(lat));
}

/** How much the name of a kind matters when there is no room for all. */
const ranks: Record<Feature["kind"], number> = {
  wires: 9,
  "take-off": 8,
  obstacle: 7,
  "no-go": 6,
  sensitive: 5,
  interference: 4,
  area: 3,
  route: 2,
  access: 1,
};

export const rank = (f: Pick<Feature, "kind">) => ranks[f.kind];

/** Behind what stands, air is rough over so many of its heights, from this wind on (m/s); as plans of inspection have it. */
const leeHeights = 5;
const leeWind = 5;

/** Where the air is rough behind a thing of that height, downwind; undefined: nowhere, or nobody knows. */
export function lee(f: Feature, wind?: Wind): Place[] | undefined {
  if (!wind || wind.ms < leeWind || !f.height_m || (f.kind !== "obstacle" && f.kind !== "wires")) return;
  if (f.kind === "wires") return; // air goes through them
  const far = leeHeights * f.height_m;
  const half = f.shape === "point" ? Math.min(f.height_m / 4, 6) : 0;
  const to = ((wind.from + 180) * Math.PI) / 180;
  const shift = (p: Place, along: number, right: number): Place => ({
    lat: p.lat + (along * Math.cos(to) - right * Math.sin(to)) / 111_200,
    lon:
      p.lon + (along * Math.sin(to) + right * Math.cos(to)) / (111_320 * Math.cos((p.lat * Math.PI) / 180)),
  });
  return hull(
    f.places.flatMap((p) => [
      shift(p, 0, half),
      shift(p, 0, -half),
      shift(p, far, half),
      shift(p, far, -half),
    ]),
  );
}

/** Wind as it blows over the site. */
export interface Wind {
  from: number;
  ms: number;
  gust?: number;
}

/** The convex outline of places. */
export function hull(ps: Place[]): Place[] {
  const sorted = [...ps].sort((a, b) => a.lon - b.lon || a.lat - b.lat);
  const turn = (o: Place, a: Place, b: Place) =>
    (a.lon - o.lon) * (b.lat - o.lat) - (a.lat - o.lat) * (b.lon - o.lon);
  const side = (list: Place[]) => {
    const out: Place[] = [];
    for (const p of list) {
      while (out.length > 1 && turn(out[out.length - 2]!, out[out.length - 1]!, p) <= 0) out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...side(sorted), ...side(sorted.reverse())];
}

import type { Schemas } from "../api/client";
import type { MapName } from "../parts/MapNames";

/** The ground as it is drawn under a map. */
export interface Ground {
  relief: Schemas["SiteRelief"];
  /** Address of the picture of its shade. */
  shade: string;
}

/** Elevations stand on the longest line of each of them; the main ones before others. */
export function heightNames(ground?: Ground): MapName[] {
  const longest = new Map<number, Schemas["Contour"]>();
  for (const l of ground?.relief.lines ?? [])
    if (l.places.length > (longest.get(l.m)?.places.length ?? 9)) longest.set(l.m, l);
  return [...longest.values()].map((l) => ({
    key: `contour-${l.m}`,
    at: l.places[Math.floor(l.places.length / 2)]!,
    words: `${l.m} m`,
    rank: l.main ? 0.5 : 0,
    gap: -11,
  }));
}

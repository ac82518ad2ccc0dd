import type { Schemas } from "../api/client";
import { words } from "../parts/Flag";
import type { StationMark } from "./AirframeStation";

/** What is marked at the stations of a plan. */
export function marksOf(stations: Schemas["StationState"][]): Record<string, StationMark> {
  return Object.fromEntries(
    stations.map((s) => [s.station, { verdict: s.verdict, label: `${words[s.verdict]}. ${s.sentence}` }]),
  );
}

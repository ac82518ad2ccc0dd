import type { Schemas } from "../../api/client";

export type CallOut = Schemas["HomeCallOut"];

/** A call-out in words: what the packs must show, or why there is no way home. */
export function callOutWords(c: CallOut): string {
  if (c.cannot) return "no way home";
  return c.percent > 100 ? "more than they hold" : `${Math.ceil(c.percent)} %`;
}

/** Points of the plot of measured over predicted, with what counts apart from what does not. */
export function learnedPoints(
  flights: Schemas["LearnedFlight"][],
): { share: number; counts: boolean; why: string }[] {
  return flights
    .filter((f) => f.measured_wh != null && f.predicted_wh != null && f.predicted_wh > 0)
    .map((f) => ({ share: f.measured_wh! / f.predicted_wh!, counts: f.left === "", why: f.left }));
}

/** How many flights were left out, by reason, most first. */
export function leftOut(flights: Schemas["LearnedFlight"][]): [string, number][] {
  const n = new Map<string, number>();
  for (const f of flights) if (f.left) n.set(f.left, (n.get(f.left) ?? 0) + 1);
  return [...n].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));
}

/** The parts of an aircraft that are weighed. */
export const partWords: Record<Schemas["Weighing"]["part"], string> = {
  empty: "Empty, without packs and payload,",
  packs: "All packs of a set",
};

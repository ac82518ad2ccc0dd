import type { Schemas } from "../api/client";
import { counted } from "../parts/number";

/** Address of the same selection as a file. */
export const csvOf = (filter: object) =>
  `/api/v1/log.csv?${new URLSearchParams(Object.entries(filter).filter((e): e is [string, string] => Boolean(e[1])))}`;

/** Hours of a name, for a bar; the most first. */
export function hoursOf(rows: Schemas["Total"][], most = 12): { name: string; hours: number }[] {
  return [...rows]
    .sort((a, b) => b.seconds - a.seconds)
    .slice(0, most)
    .map((r) => ({ name: r.name, hours: Math.round(r.seconds / 360) / 10 }));
}

/** The weeks of a selection in words, for those who do not see the bars. */
export function weeksWords(weeks: Schemas["LogWeek"][]): string {
  const most = weeks.reduce((a, b) => (b.flights > a.flights ? b : a), weeks[0]!);
  const flights = weeks.reduce((n, w) => n + w.flights, 0);
  return `${counted(flights, "flight")} in ${counted(weeks.length, "week")}, the most, ${most.flights}, in the week of ${most.from}`;
}

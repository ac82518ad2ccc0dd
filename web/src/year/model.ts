import type { Schemas } from "../api/client";
import { counted } from "../parts/number";

export interface Week {
  from: string;
  flights: number;
  hours: number;
  work: number;
  stops: number;
  down: boolean;
}

/** The weeks of one aircraft; all at rest where nothing is on record. */
export function weeksOf(y: Schemas["FleetYear"], id: string): Week[] {
  const a = y.aircraft.find((x) => x.id === id);
  return y.weeks.map((from, i) => ({
    from,
    flights: a?.flights[i] ?? 0,
    hours: (a?.seconds[i] ?? 0) / 3600,
    work: a?.work[i] ?? 0,
    stops: a?.stops[i] ?? 0,
    down: a?.down[i] ?? false,
  }));
}

/** The year in words. */
export function yearWords(weeks: Week[]): string {
  const sum = (k: "flights" | "hours" | "work" | "stops") => weeks.reduce((n, w) => n + w[k], 0);
  const down = weeks.filter((w) => w.down).length;
  return [
    `${counted(sum("flights"), "flight")}, ${sum("hours").toFixed(1)} h`,
    counted(sum("work"), "work order") + " signed",
    counted(sum("stops"), "Stop"),
    `on the ground in ${counted(down, "week")}`,
  ].join("; ");
}

/** One week in words. */
export function weekWords(w: Week): string {
  const parts = [`Week of ${w.from}: ${counted(w.flights, "flight")}, ${w.hours.toFixed(1)} h`];
  if (w.work) parts.push(`${counted(w.work, "work order")} signed`);
  if (w.stops) parts.push(`${counted(w.stops, "Stop")} began`);
  if (w.down) parts.push("something stood open");
  return parts.join("; ");
}

/** Names of months over the weeks in which they begin. */
export function months(weeks: string[]): { at: number; name: string }[] {
  return weeks.flatMap((w, i) => {
    const d = new Date(`${w}T12:00:00Z`);
    return d.getUTCDate() <= 7 ? [{ at: i, name: names[d.getUTCMonth()]! }] : [];
  });
}

const names = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

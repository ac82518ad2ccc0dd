import type { Schemas } from "../api/client";

type Entry = Schemas["FleetEntry"];

/** How the fleet may be ordered; the first is usual. */
export const fleetOrders: Record<string, string> = {
  name: "by name",
  worst: "worst first",
  due: "next due first",
};

const rank: Record<Entry["verdict"], number> = { stop: 0, watch: 1, clear: 2 };

/** The fleet in an order; what is alike stays by name. */
export function sortedFleet(all: Entry[], by: string | null): Entry[] {
  const key = (e: Entry) => (by === "worst" ? rank[e.verdict] : by === "due" ? -e.next_due_fraction : 0);
  return [...all].sort(
    (a, b) => key(a) - key(b) || a.aircraft.name.localeCompare(b.aircraft.name, "en", { numeric: true }),
  );
}

/** What can be done with an aircraft in a dialog of its page. */
export type AircraftAct = "ground" | "return" | "fit" | "defect" | "edit" | "incident";

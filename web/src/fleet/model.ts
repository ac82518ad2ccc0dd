import { z } from "zod";
import { shownQuantity, typedQuantity } from "../parts/typed";
import type { Units } from "../parts/units";
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

/** A mass as its box shows it. */
export const shownMass = (kg: number | null | undefined, u: Units) => shownQuantity(u, "mass", kg, 2);

/** A take-off mass as it is typed; empty is not known, and what nobody touched stays what it was. */
export const typedMass = (u: Units, was?: number | null) =>
  z.string().transform((text, ctx): number | null => {
    if (was != null && text === shownMass(was, u)) return was;
    const r = typedQuantity(u, "mass", 0.05, 1000).safeParse(text);
    if (r.success) return r.data;
    ctx.addIssue({ code: "custom", message: r.error.issues[0]!.message });
    return z.NEVER;
  });

const day = z.string().transform((d) => d || null);

/** An aircraft that comes to the crew, as it is typed. */
export const newAircraft = (u: Units) =>
  z
    .object({
      type_key: z.string(),
      name: z.string(),
      serial: z.string(),
      registration: z.string(),
      registration_expires: day,
      fit_new_parts: z.boolean(),
      mass: typedMass(u),
      weighed_on: day,
    })
    .transform(({ mass, ...v }) => ({ ...v, mass_kg: mass }));

/** An aircraft that is changed, as it is typed. */
export const changedAircraft = (u: Units, was: number | null | undefined) =>
  z
    .object({
      name: z.string(),
      registration: z.string(),
      registration_expires: day,
      active: z.boolean(),
      mass: typedMass(u, was),
      weighed_on: day,
    })
    .transform(({ mass, ...v }) => ({ ...v, mass_kg: mass }));

import { z } from "zod";
import { typedMoment, typedQuantity } from "../parts/typed";
import type { Units } from "../parts/units";
import type { Schemas } from "../api/client";

export type Zone = Schemas["ZoneSeen"];

const datumWords: Record<Zone["floor_datum"], string> = {
  ground: "",
  sea: "above the sea",
  "flight-level": "in the standard atmosphere",
};

/** From where to where a zone reaches, in words. */
export function levels(
  x: Pick<Zone, "floor_m" | "floor_datum" | "ceiling_m" | "ceiling_datum">,
  show: (q: "length", v: number) => string,
): string {
  const level = (m: number, datum: Zone["floor_datum"]) => `${show("length", m)} ${datumWords[datum]}`.trim();
  const floor = !x.floor_m ? "ground" : level(x.floor_m, x.floor_datum);
  return `${floor} to ${x.ceiling_m == null ? "no ceiling given" : level(x.ceiling_m, x.ceiling_datum)}`;
}

/** What is found besides the zones themselves: those say it at their own place. */
export const besides = (a: Pick<Schemas["Airspace"], "findings" | "zones">) =>
  a.findings.filter((f) => !a.zones.some((x) => x.sentence === f.sentence));

/** What is asked of the airspace desk, or was granted otherwise, as it is typed. */
export const authorisationForm = (u: Units, zone: string) =>
  z.object({
    ceiling_m: typedQuantity(u, "length", 1, 3000, "Enter the height.").transform((v) => v ?? 0),
    from: typedMoment(zone),
    to: typedMoment(zone),
    number: z.string(),
  });

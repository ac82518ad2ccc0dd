import type { Schemas } from "../api/client";
import { plane } from "../drawings/plane";
import type { Units } from "../parts/units";
import type { Plan } from "./api";

type Place = Schemas["Place"];

/** How rates and areas are said beside the crew's volume: L/ha and ha, or gal/ac and ac. */
export interface Rates {
  /** L/ha in one shown unit. */
  rate: number;
  rateLabel: string;
  /** kg/ha in one shown unit. */
  spread: number;
  spreadLabel: string;
  /** Hectares in one shown unit. */
  area: number;
  areaLabel: string;
}

const acre = 0.40468564224;
const gallon = 3.785411784;
const pound = 0.45359237;

export function rates(u: Units): Rates {
  return u.label("volume") === "gal"
    ? {
        rate: gallon / acre,
        rateLabel: "gal/ac",
        spread: pound / acre,
        spreadLabel: "lb/ac",
        area: acre,
        areaLabel: "ac",
      }
    : { rate: 1, rateLabel: "L/ha", spread: 1, spreadLabel: "kg/ha", area: 1, areaLabel: "ha" };
}

/** What a rate is shown in: granules by mass, all else by volume. */
export function rateOf(r: Rates, granules: boolean): { by: number; label: string } {
  return granules ? { by: r.spread, label: r.spreadLabel } : { by: r.rate, label: r.rateLabel };
}

/** How far it comes out and back at least and at most, m; nothing where that is not known. */
export function reachOf(start: Place, reach: Place[]): { least: number; most: number } | undefined {
  if (reach.length === 0) return undefined;
  const far = reach.map(plane([start])).map(([x, y]) => Math.hypot(x, y));
  return { least: Math.min(...far), most: Math.max(...far) };
}

/** What of a pass is sprayed, from 0 to 1, in stretches. */
export function sprayedOf(plan: Pick<Plan, "done">, pass: number): [number, number][] {
  return plan.done
    .filter((d) => d.pass === pass)
    .map((d): [number, number] => [d.from_share, d.to_share])
    .sort((a, b) => a[0] - b[0]);
}

/** Whether all of a pass is sprayed. */
export function isDone(plan: Pick<Plan, "done">, pass: number): boolean {
  let at = 0;
  for (const [from, to] of sprayedOf(plan, pass)) if (from <= at + 1e-6) at = Math.max(at, to);
  return at >= 1 - 1e-6;
}

/** The parts of a sortie as they are put on record when it is flown whole. */
export function partsOf(
  s: Pick<Schemas["SpraySortie"], "legs">,
  id: () => string,
): Schemas["NewSprayedPart"][] {
  return s.legs.map((l) => ({ id: id(), pass: l.pass, from_share: l.from_share, to_share: l.to_share }));
}

/** Legs of a sortie up to a leg, and a share of that one from where it is begun. */
export function partsUpTo(
  s: Pick<Schemas["SpraySortie"], "legs">,
  leg: number,
  share: number,
  id: () => string,
): Schemas["NewSprayedPart"][] {
  const whole = partsOf({ legs: s.legs.slice(0, leg) }, id);
  const l = s.legs[leg];
  if (!l || share <= 0) return whole;
  const part = (l.to_share - l.from_share) * Math.min(share, 1);
  return [
    ...whole,
    l.back
      ? { id: id(), pass: l.pass, from_share: l.to_share - part, to_share: l.to_share }
      : { id: id(), pass: l.pass, from_share: l.from_share, to_share: l.from_share + part },
  ];
}

export const limitWords: Record<Schemas["SpraySortie"]["limit"], string> = {
  tank: "the tank is empty",
  mass: "no more may be lifted",
  energy: "the packs must come home",
  area: "the field is done",
};

/** What goes together into all loads: litres of mix, water, each product. */
export function totals(plan: Pick<Plan, "loads" | "wish">): {
  litres: number;
  water: number;
  products: number[];
} {
  const products = plan.wish.mix.map((_, i) => plan.loads.reduce((s, l) => s + (l.amounts[i] ?? 0), 0));
  return {
    litres: plan.loads.reduce((s, l) => s + l.litres, 0),
    water: plan.loads.reduce((s, l) => s + l.water, 0),
    products,
  };
}

/** Seconds as minutes and seconds. */
export function minutes(s: number): string {
  const t = Math.round(s);
  return `${Math.floor(t / 60)}:${String(t % 60).padStart(2, "0")}`;
}

/** The number of the fill that is at hand: the first that is not complete, or the next one. */
export function nextFill(plan: Pick<Plan, "fills">): number {
  const open = plan.fills.find((f) => !f.complete);
  return open ? open.number : plan.fills.length + 1;
}

/** What goes in for the next load before anybody ticked: as the server will write it down. */
export function sheetOf(plan: Pick<Plan, "loads" | "wish">): Schemas["FillLine"][] {
  const l = plan.loads[0];
  if (!l) return [];
  const line = (what: string, amount: number, unit: string) => ({
    what,
    amount,
    unit,
    first: "",
    second: "",
  });
  const products = plan.wish.mix.map((p, i) => line(p.name, l.amounts[i] ?? 0, p.unit));
  if (plan.wish.granules || l.water <= 0) return products;
  return [
    line("Water, first half", l.water / 2, "L"),
    ...products,
    line("Water, the rest", l.water - l.water / 2, "L"),
  ];
}

/** A spray record, line by line, as it is read and printed. */
export function recordLines(r: Schemas["SprayRecord"], when: (iso: string) => string): [string, string][] {
  const at = (t: string | null) => (t ? when(t) : "");
  return [
    ["Product", r.product],
    ["Registration number", r.number],
    ["Rate", `${r.rate} ${r.rate_unit}`],
    [
      "Area",
      `${r.area_ha.toFixed(2)} ha, ${r.volume.toFixed(1)} ${r.rate_unit.startsWith("kg") ? "kg" : "L"}`,
    ],
    ["Field", `${r.field}, ${r.site} (${r.lat.toFixed(5)}, ${r.lon.toFixed(5)})`],
    ["From", at(r.from)],
    ["To", at(r.to)],
    ["Weather at the beginning", r.weather_from],
    ["Weather at the end", r.weather_to],
    ["Aircraft", [r.aircraft, r.registration].filter(Boolean).join(", ")],
    ["Applicator", [r.applicator, r.licence].filter(Boolean).join(", licence ")],
    ["Nobody enters before", at(r.re_entry)],
    ...(r.neighbours ? [["Neighbours told", r.neighbours] as [string, string]] : []),
    ...(r.note ? [["Note", r.note] as [string, string]] : []),
  ];
}

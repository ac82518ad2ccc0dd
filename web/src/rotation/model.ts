import { z } from "zod";
import type { Schemas } from "../api/client";
import { typedNumber, typedWhole } from "../parts/typed";

export type Day = Schemas["RotationDay"];
export type Rotation = Schemas["Rotation"];

const num = (lo: number, hi: number, unit: string) =>
  typedNumber(lo, hi, unit, "Enter a number.").transform((v) => v ?? 0);

/** What is typed for a day: minutes where the simulation has seconds. */
export const dayForm = z
  .object({
    flights: typedWhole(1, 300, "Enter 1 to 300 flights."),
    minutes: num(0.1, 1440, "min"),
    wh: num(0, 1e6, "Wh"),
    done: num(0, 1e7, ""),
    fill: z.boolean(),
    aircraft: typedWhole(1, 50, "Enter 1 to 50 aircraft."),
    sets: typedWhole(1, 500, "Enter 1 to 500 sets."),
    per_set: typedWhole(1, 12, "Enter 1 to 12 packs in a set."),
    pack_wh: num(1, 1e5, "Wh"),
    charge_to: num(10, 100, "%"),
    cool: num(0, 1440, "min"),
    channels: typedWhole(0, 200, "Enter how many channels there are."),
    channel_w: num(0, 1e6, "W"),
    generator_w: num(0, 1e7, "W"),
    hands: typedWhole(1, 50, "Enter how many people swap and fill."),
    swap: num(0, 1440, "min"),
    fill_min: num(0, 1440, "min"),
    hours: num(0, 168, "h"),
  })
  .transform((t): Day => ({
    sorties: Array.from({ length: t.flights }, () => ({
      seconds: t.minutes * 60,
      wh: t.wh,
      done: t.done,
      fill: t.fill,
    })),
    aircraft: t.aircraft,
    sets: t.sets,
    per_set: t.per_set,
    pack_wh: t.pack_wh,
    charge_to: t.charge_to,
    cool_s: t.cool * 60,
    channels: t.channels,
    channel_w: t.channel_w,
    generator_w: t.generator_w,
    hands: t.hands,
    swap_s: t.swap * 60,
    fill_s: t.fill_min * 60,
    day_s: t.hours * 3600,
  }));

export type Typed = z.input<typeof dayForm>;

/** A usual day of one sprayer. */
export const usualDay: Typed = {
  flights: "12",
  minutes: "9",
  wh: "1300",
  done: "1.2",
  fill: true,
  aircraft: "1",
  sets: "3",
  per_set: "2",
  pack_wh: "1450",
  charge_to: "95",
  cool: "12",
  channels: "4",
  channel_w: "900",
  generator_w: "0",
  hands: "2",
  swap: "2",
  fill_min: "2.5",
  hours: "8",
};

/** A day from a spray plan: its flights one by one, the rest as it was typed. */
export function fromPlan(p: Pick<Schemas["SprayPlan"], "sorties">, day: Day): Day {
  if (p.sorties.length === 0) return day;
  return {
    ...day,
    sorties: p.sorties.map((s) => ({ seconds: s.seconds, wh: s.wh, done: s.ha, fill: true })),
  };
}

export const moreWords: Record<Schemas["RotationGain"]["more"], string> = {
  aircraft: "one more aircraft",
  set: "one more set of packs",
  channel: "one more charging channel, with its power",
  generator: "power for one more channel",
  hand: "one more hand",
};

export const doingWords: Record<Schemas["RotationStretch"]["doing"], string> = {
  swap: "packs changed",
  fill: "filled",
  fly: "in the air",
  "wait-packs": "waits for packs",
  "wait-hands": "waits for hands",
  cool: "cools",
  "wait-charger": "waits for a charger",
  charge: "charges",
};

/** Rows of the timeline: aircraft first, then sets, each with its stretches. */
export function rows(r: Schemas["RotationRun"]): { name: string; line: Schemas["RotationStretch"][] }[] {
  const out = new Map<string, Schemas["RotationStretch"][]>();
  for (const of of ["aircraft", "set"] as const)
    for (const s of [...r.line].sort((a, b) => a.number - b.number || a.from_s - b.from_s))
      if (s.of === of) {
        const name = `${of === "aircraft" ? "Aircraft" : "Set"} ${s.number}`;
        out.set(name, [...(out.get(name) ?? []), s]);
      }
  return [...out].map(([name, line]) => ({ name, line }));
}

/** Seconds as hours and minutes. */
export function hm(s: number): string {
  const m = Math.round(s / 60);
  return `${Math.floor(m / 60)}:${String(m % 60).padStart(2, "0")}`;
}

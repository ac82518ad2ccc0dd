import { z } from "zod";
import { typedNumber } from "../parts/typed";
import type { Schemas } from "../api/client";
import type { Press } from "../outbox/model";

type Evening = Schemas["Evening"];

/** A tick of the evening, as it is pressed. */
export interface TickPress {
  day: string;
  item: string;
  done: boolean;
  label: string;
}

/** The outbox's name for an evening. */
export const eveningThing = (day: string) => `evening/${day}`;

/** An evening with the ticks that wait to be sent. */
export function withTicks(e: Evening, waiting: Press[], toIso: (deviceMs: number) => string): Evening {
  const ticks = waiting.reduce((now, p) => {
    const { item, done } = (p as Press<TickPress>).body;
    const rest = now.filter((t) => t.item !== item);
    return done
      ? [...rest, now.find((t) => t.item === item) ?? { item, label: "", by: p.personName, at: toIso(p.at) }]
      : rest;
  }, e.ticks);
  return { ...e, ticks };
}

const doneWords: Record<string, string> = {
  charge: "on charge",
  charged: "charged",
  lower: "brought down",
};

/** What was ticked and has left its list by that: what was done, to which pack. */
export function doneBefore(e: Evening): { item: string; words: string; by: string; at: string }[] {
  const shown = new Set([
    ...e.plan.charge.flatMap((j) => [`charge:${j.pack_id}`, `charged:${j.pack_id}`]),
    ...e.plan.lower.map((l) => `lower:${l.pack_id}`),
  ]);
  return e.ticks.flatMap((t) => {
    const words = doneWords[t.item.split(":")[0]!];
    return words && t.label && !shown.has(t.item)
      ? [{ item: t.item, words: `${t.label} ${words}`, by: t.by, at: t.at }]
      : [];
  });
}

/** A piece of gear, as it is typed. */
export const gearForm = z.object({
  name: z.string(),
  kind: z.custom<Schemas["Gear"]["kind"]>((v) => typeof v === "string"),
  minimum: typedNumber(1, 100, "%", "Enter 1 to 100 %.").transform((v) => v ?? 0),
  active: z.boolean(),
  aircraft: z.string(),
});

/** The level that a piece of gear shows, as it is typed. */
export const levelForm = z.object({
  level: typedNumber(0, 100, "%", "Enter the level it shows.").transform((v) => v ?? 0),
});

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
      ? [...rest, now.find((t) => t.item === item) ?? { item, by: p.personName, at: toIso(p.at) }]
      : rest;
  }, e.ticks);
  return { ...e, ticks };
}

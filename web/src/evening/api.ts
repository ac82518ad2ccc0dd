import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { useAbout, usePress } from "../outbox/hooks";
import { answered, pressKind } from "../outbox/kinds";
import { serverIso } from "../parts/time";
import { eveningThing, withTicks, type TickPress } from "./model";

/** The evening before a day of flying, with what was ticked here since. */
export function useEvening(day: string) {
  const about = useAbout(eveningThing(day));
  const query = useQuery({
    queryKey: keys.evening(day),
    queryFn: () => ask(api.GET("/evenings/{day}", { params: { path: { day } } })),
    select: (e) => withTicks(e, about.waiting, serverIso),
  });
  return { query, about };
}

/** Ticks a line off, or takes that back. */
export function useTick(day: string) {
  const press = usePress();
  return (item: string, done: boolean, label: string) =>
    press<TickPress>("evening.tick", eveningThing(day), { day, item, done, label });
}

pressKind<TickPress>("evening.tick", {
  said: (b) => (b.done ? b.label : `Not ${b.label}`),
  send: async (p, { header, signal }, qc) => {
    const { day, item, done } = p.body;
    const queryKey = keys.evening(day);
    const fresh = await ask(
      api.PUT("/evenings/{day}/ticks", { params: { header, path: { day } }, signal, body: { item, done } }),
    );
    await answered(qc, queryKey, fresh);
  },
});

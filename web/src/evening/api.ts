import { useWrite } from "../api/write";
import { useQuery } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
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

/** Add a charger, or change it. */
export const useSaveCharger = () =>
  useWrite((body: Schemas["ChargerEdit"]) => ask(api.PUT("/chargers", { body })), "chargers");

/** Add gear that holds a charge, or change it. */
export const useSaveGear = () =>
  useWrite((body: Schemas["GearEdit"]) => ask(api.PUT("/gear", { body })), "gear");

/** Somebody looked at a piece of gear, at case, leads and cells. */
export const useLookAtGear = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["GearLook"] }) =>
      ask(api.POST("/gear/{id}/look", { params: { path: { id } }, body })),
    "gear",
  );

/** Say what flies on a day and when packs must be ready. */
export const useSaveEvening = () =>
  useWrite(({ day, body }: { day: string; body: Schemas["EveningEdit"] }) =>
    ask(api.PUT("/evenings/{day}", { params: { path: { day } }, body })),
  );

/** The level of a piece of gear as read now. */
export const useCheckGear = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["GearLevel"] }) =>
      ask(api.POST("/gear/{id}/level", { params: { path: { id } }, body })),
    "gear",
  );

import { useWrite } from "../api/write";
import { wrote } from "../api/touched";
import { useMutation, useQuery, type QueryClient } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { startJudge } from "../judge/judge";
import { useAbout, usePress } from "../outbox/hooks";
import { answered, pressKind } from "../outbox/kinds";
import { withoutRefused } from "../outbox/photos";
import { clearDraft } from "../parts/drafts";
import { serverIso } from "../parts/time";
import { withPresses, type Item, type Offer, type Run, type WalkPresses } from "./model";

/** The walk as it is on the server, with what this device has pressed since. */
export function useWalk(id: string) {
  useEffect(startJudge, []);
  const about = useAbout(id);
  const { waiting } = about;
  const query = useQuery({
    queryKey: keys.walkround(id),
    queryFn: () => ask(api.GET("/walkrounds/{id}", { params: { path: { id } } })),
  });
  const walk = useMemo(
    () => query.data && withPresses(query.data, waiting, serverIso),
    [query.data, waiting],
  );
  return { query, walk, about };
}

/** Presses of a walk: shown at once, sent when the server is there. */
export function useWalkPress(id: string) {
  const press = usePress();
  return <K extends keyof WalkPresses>(kind: K, body: WalkPresses[K], show?: (tell: () => void) => void) =>
    press(kind, id, body, {}, show);
}

/** What is known for items of a run, to be confirmed; without network nothing is offered. */
export function useOffer(run: string, item: Item): Offer | undefined {
  const { data } = useQuery({
    queryKey: keys.offers(run),
    queryFn: () => ask(api.GET("/walkrounds/{id}/offers", { params: { path: { id: run } } })),
    staleTime: 30_000,
    retry: false,
  });
  return data?.offers.find((o) => o.item_id === item.id);
}

/** What was said and shown before at an item, on the same aircraft. */
export function useBefore(run: string, item: string): Schemas["BeforeOne"][] {
  const { data } = useQuery({
    queryKey: keys.walkBefore(run),
    queryFn: () => ask(api.GET("/walkrounds/{id}/before", { params: { path: { id: run } } })),
    staleTime: Infinity,
    retry: false,
  });
  return useMemo(() => data?.before.filter((b) => b.item_id === item) ?? [], [data, item]);
}

/** How the motors of an aircraft stand to each other over its last flights; nothing until it is known. */
export function useTrends(aircraft: string): Schemas["Trends"] | undefined {
  return useQuery({
    queryKey: keys.trends(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}/trends", { params: { path: { id: aircraft } } })),
    staleTime: 10 * 60_000,
    retry: false,
  }).data;
}

/** The open defects of an aircraft. */
export function useOpenDefects(aircraft: string): Schemas["Defect"][] {
  const { data } = useQuery({
    queryKey: keys.defectsOf(aircraft),
    queryFn: () => ask(api.GET("/defects", { params: { query: { aircraft } } })),
    staleTime: 60_000,
    retry: false,
  });
  return useMemo(() => data?.defects.filter((d) => !d.closed_at) ?? [], [data]);
}

/** The rounds that the checklist of a type has items for. */
export function useRounds(type: string) {
  return useQuery({
    queryKey: keys.rounds(type),
    queryFn: () => ask(api.GET("/types/{key}/rounds", { params: { path: { key: type } } })),
  });
}

/** Starts a round; the same id twice is one. */
export function useStartWalk() {
  return useMutation({
    mutationFn: (body: Schemas["StartWalkround"]) => ask(api.POST("/walkrounds", { body })),
  });
}

/** How the person who is signed in did in drills. */
export function useDrills() {
  return useQuery({ queryKey: keys.drills, queryFn: () => ask(api.GET("/drills")) });
}

/** Judges an entry on the server, where this device cannot. */
export function judgeThere(run: string, item_id: string, value: Schemas["ItemValue"]) {
  return ask(api.POST("/walkrounds/{id}/judge", { params: { path: { id: run } }, body: { item_id, value } }));
}

/** Under which an entry is kept while it is typed. */
export const entryDraft = (run: string, item: string) => `walk-${run}-${item}`;

/** A value without the photos that the server did not take; they are named by themselves. */
function arrived(v: Schemas["ItemValue"]): Schemas["ItemValue"] {
  return v.photos ? { ...v, photos: withoutRefused(v.photos) } : v;
}

const take = (qc: QueryClient, w: Run) => answered(qc, keys.walkround(w.id), w);

pressKind<WalkPresses["walk.entry"]>("walk.entry", {
  said: (b) => b.title,
  send: async (p, { header, signal }, qc) => {
    const { item_id, value } = p.body;
    await take(
      qc,
      await ask(
        api.PUT("/walkrounds/{id}/entries", {
          params: { header, path: { id: p.thing } },
          signal,
          body: { entries: [{ item_id, value: arrived(value) }] },
        }),
      ),
    );
    clearDraft(entryDraft(p.thing, item_id));
  },
});
pressKind<WalkPresses["walk.complete"]>("walk.complete", {
  said: (b) => `The end of the ${b.kind}`,
  send: async (p, { header, signal }, qc) => {
    await take(
      qc,
      await ask(api.POST("/walkrounds/{id}/complete", { params: { header, path: { id: p.thing } }, signal })),
    );
    await wrote(qc, "walkrounds", "defects", "packs", "pack_readings");
  },
});

/** Gives a walk up: it will be no check, and what was found on it stays. */
export const useAbandonWalkround = () =>
  useWrite((id: string) => ask(api.DELETE("/walkrounds/{id}", { params: { path: { id } } })), "walkrounds");

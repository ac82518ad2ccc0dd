import { useQuery } from "@tanstack/react-query";
import { api, ask, type Schemas } from "./client";
import { keys } from "./keys";

// What several features ask for: each list once, under one key.

export const useTypes = () =>
  useQuery({ queryKey: keys.types, queryFn: () => ask(api.GET("/types")), staleTime: 60_000 });

export const useFleet = () =>
  useQuery({ queryKey: keys.fleet, queryFn: () => ask(api.GET("/aircraft")), refetchInterval: 60_000 });

export const usePeople = () => useQuery({ queryKey: keys.people, queryFn: () => ask(api.GET("/people")) });

export const useSites = () => useQuery({ queryKey: keys.sites, queryFn: () => ask(api.GET("/sites")) });

/** The whole rack, page after page. */
async function allPacks(): Promise<{ packs: Schemas["Pack"][] }> {
  const packs: Schemas["Pack"][] = [];
  for (let cursor: string | undefined; ;) {
    const page = await ask(api.GET("/packs", { params: { query: { cursor } } }));
    packs.push(...page.packs);
    if (!page.next_cursor) return { packs };
    cursor = page.next_cursor;
  }
}

export const usePacks = () => useQuery({ queryKey: keys.packs, queryFn: allPacks, refetchInterval: 60_000 });

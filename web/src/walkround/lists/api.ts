import { wrote } from "../../api/touched";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../../api/client";
import { keys } from "../../api/keys";
import type { List } from "./model";

/** The versions of a type's checklist, the newest first. */
export function useVersions(type: string) {
  return useQuery({
    queryKey: keys.listVersions(type),
    queryFn: () => ask(api.GET("/types/{key}/checklists", { params: { path: { key: type } } })),
  });
}

export function useList(type: string, version: number | undefined) {
  return useQuery({
    queryKey: keys.list(type, version ?? 0),
    enabled: version !== undefined,
    queryFn: () =>
      ask(api.GET("/types/{key}/checklist", { params: { path: { key: type }, query: { version } } })),
  });
}

/** What a list would ask for in a round; nothing is kept. */
export function useTrial(type: string, round: string, list: List) {
  return useQuery({
    queryKey: keys.listTrial(type, round, JSON.stringify(list)),
    placeholderData: keepPreviousData,
    queryFn: () =>
      ask(
        api.POST("/types/{key}/checklist/try", {
          params: { path: { key: type }, query: { round: round as "walkround" } },
          body: list,
        }),
      ),
  });
}

/** Hands a version in; runs that are under way keep theirs. */
export function useKeepList(type: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (list: List) =>
      ask(api.POST("/types/{key}/checklist", { params: { path: { key: type } }, body: list })),
    onSuccess: () => wrote(qc, "crew"), // lists belong to the crew's set-up
  });
}

import { wrote } from "../api/touched";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import type { Profile } from "./model";

/** What a type would be: its plan, what is wrong with it, and whose checklist fits. */
export function useTypeTrial(profile: Profile) {
  return useQuery({
    queryKey: keys.typeTrial(JSON.stringify(profile)),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => ask(api.POST("/types/try", { body: profile })),
  });
}

/** Takes a type in, with checklist and programme of one that it is like. */
export function useAddType() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: ({ profile, like }: { profile: Profile; like: string }) =>
      ask(api.POST("/types", { body: profile, params: { query: { like: like || undefined } } })),
    onSuccess: () => wrote(qc, "crew", "programmes"), // types belong to the crew's set-up
  });
}

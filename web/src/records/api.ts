import { useMutation, useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";

/** Where the chain of records ends now; asked again each minute, for paper shows it. */
export function useHead() {
  return useQuery({
    queryKey: keys.head,
    queryFn: () => ask(api.GET("/records/head")),
    refetchInterval: 60_000,
    staleTime: 30_000,
  });
}

/** Checks the chain and everything against it, with a head known outside when there is one. */
export function useVerify() {
  return useMutation({
    mutationFn: (head: string) =>
      ask(api.POST("/records/verify", { body: head.trim() ? { head: head.trim() } : {} })),
  });
}

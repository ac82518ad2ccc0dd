import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";

export function useJobs(past = false) {
  return useQuery({
    queryKey: keys.jobs(past),
    queryFn: () => ask(api.GET("/jobs", { params: { query: { past } } })),
  });
}

export const useJob = (id: string) =>
  useQuery({
    queryKey: keys.job(id),
    queryFn: () => ask(api.GET("/jobs/{id}", { params: { path: { id } } })),
    refetchInterval: 60_000,
  });

import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { usePages } from "../api/pages";

/** The jobs that are planned, or that are past; with all of the words. */
export const useJobs = (past = false, q?: string) =>
  usePages({
    key: keys.jobs(past, q),
    read: (cursor) => ask(api.GET("/jobs", { params: { query: { past, q, cursor } } })),
    rows: (p) => p.jobs,
  });

export const useJob = (id: string) =>
  useQuery({
    queryKey: keys.job(id),
    queryFn: () => ask(api.GET("/jobs/{id}", { params: { path: { id } } })),
    refetchInterval: 60_000,
  });

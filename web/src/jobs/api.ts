import { useWrite } from "../api/write";
import { wrote } from "../api/touched";
import { useMutation, useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { usePages } from "../api/pages";
import { serverNow } from "../parts/time";
import { dayAgo, takeOffPlaces } from "./model";

interface Which {
  past?: boolean;
  /** Only those that end after it. */
  since?: string;
  q?: string;
}

/** The jobs that are planned, or that are past; with all of the words. */
export const useJobs = (which: Which) =>
  usePages({
    key: keys.jobs(which),
    read: (cursor) => ask(api.GET("/jobs", { params: { query: { ...which, cursor } } })),
    rows: (p) => p.jobs,
  });

/** The jobs of now: what nobody closed for months does not hide them. */
export const useJobsNow = () => useJobs({ since: dayAgo(serverNow()) });

export const useJob = (id: string) =>
  useQuery({
    queryKey: keys.job(id),
    queryFn: () => ask(api.GET("/jobs/{id}", { params: { path: { id } } })),
    refetchInterval: 60_000,
  });

/** Plans a job, or changes it; version 0 is a new one. */
export function useSaveJob(id: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["JobEdit"]) => ask(api.PUT("/jobs/{id}", { params: { path: { id } }, body })),
    onSuccess: () => wrote(qc, "jobs"),
  });
}

/** The take-off places on the map of a site, the main one first. */
export function useTakeOffPlaces(site: string, wanted = true) {
  const q = useQuery({
    queryKey: keys.site(site),
    queryFn: () => ask(api.GET("/sites/{id}", { params: { path: { id: site } } })),
    enabled: wanted && site !== "",
  });
  return takeOffPlaces(q.data?.features ?? []);
}

/** Puts a decision on record; it changes the job, its gate and the day. */
export async function decide(qc: QueryClient, job: string, body: Schemas["JobDecision"]) {
  await ask(api.POST("/jobs/{id}/decisions", { params: { path: { id: job } }, body }));
  await wrote(qc, "jobs", "job_decisions");
}

/** Takes a decision back; what it lifted stands again, in the job, at the gate and on the day. */
export function useWithdraw(job: string, decision: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["Withdrawal"]) =>
      ask(
        api.POST("/jobs/{id}/decisions/{decision}/withdraw", {
          params: { path: { id: job, decision } },
          body,
        }),
      ),
    onSuccess: () => void wrote(qc, "jobs", "job_decisions"),
  });
}

/** A participant has read the briefing and signs it. */
export const useSignBriefing = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["BriefingSign"] }) =>
      ask(api.POST("/jobs/{id}/briefing/sign", { params: { path: { id } }, body })),
    "briefing_signatures",
  );

/** Close a job, call it off, or plan it again. */
export const useEndJob = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["JobEnd"] }) =>
      ask(api.POST("/jobs/{id}/state", { params: { path: { id } }, body })),
    "jobs",
  );

/** Pack or check an item of the kit; an item of the own brings its words. */
export const usePackKit = () =>
  useWrite(
    ({ id, item, body }: { id: string; item: string; body: Schemas["KitEdit"] }) =>
      ask(api.PUT("/jobs/{id}/kit/{item}", { params: { path: { id, item } }, body })),
    "job_kit",
  );

/** Answer questions of the rules. */
export const useAnswerJob = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["JobAnswers"] }) =>
      ask(api.PUT("/jobs/{id}/answers", { params: { path: { id } }, body })),
    "job_answers",
  );

/** Write the briefing from what is known now. */
export const useWriteBriefing = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["BriefingNew"] }) =>
      ask(api.POST("/jobs/{id}/briefing", { params: { path: { id } }, body })),
    "briefings",
  );

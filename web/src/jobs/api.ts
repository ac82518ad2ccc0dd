import { wrote } from "../api/touched";
import { useMutation, useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { takeOffPlaces } from "./model";

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

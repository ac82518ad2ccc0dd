import { wrote } from "../api/touched";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";

export type Plan = Schemas["SprayPlan"];
export type Wish = Schemas["SprayWish"];

const at = (id: string, aircraft: string) => ({ params: { path: { id, aircraft } } });

/** A wish worked out without keeping it; what was worked out before stands until the answer is there. */
export function useTry(job: string, aircraft: string, wish: Wish | undefined) {
  return useQuery({
    queryKey: keys.sprayTry(job, aircraft, wish),
    queryFn: () => ask(api.POST("/jobs/{id}/spray/{aircraft}/try", { ...at(job, aircraft), body: wish! })),
    enabled: wish !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  });
}

function usePlanChange<B>(job: string, aircraft: string, send: (body: B) => Promise<Plan>) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (p) => {
      qc.setQueryData(keys.spray(job, aircraft), p);
      void wrote(qc, "spray_plans", "jobs");
    },
  });
}

export const useSavePlan = (job: string, aircraft: string) =>
  usePlanChange(job, aircraft, (body: Schemas["SaveSprayPlan"]) =>
    ask(api.PUT("/jobs/{id}/spray/{aircraft}", { ...at(job, aircraft), body })),
  );

/** The signature of the second person, which only the server can hold against the PIN. */
export const useFill = (job: string, aircraft: string, number: number) =>
  usePlanChange(job, aircraft, (body: Schemas["SaveFill"]) =>
    ask(
      api.PUT("/jobs/{id}/spray/{aircraft}/fills/{number}", {
        params: { path: { id: job, aircraft, number } },
        body,
      }),
    ),
  );

export function useNozzles() {
  return useQuery({ queryKey: keys.nozzles, queryFn: () => ask(api.GET("/nozzles")) });
}

export function useSaveNozzle() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NozzleKind"]) =>
      ask(api.PUT("/nozzles/{id}", { params: { path: { id: body.id } }, body })),
    onSuccess: (d) => {
      qc.setQueryData(keys.nozzles, d);
      void wrote(qc, "nozzles", "spray_plans");
    },
  });
}

export function useChecks(aircraft: string) {
  return useQuery({
    queryKey: keys.sprayChecks(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}/spray-checks", { params: { path: { id: aircraft } } })),
  });
}

export function useRecords(job: string, aircraft: string) {
  return useQuery({
    queryKey: keys.sprayRecord(job, aircraft),
    queryFn: () => ask(api.GET("/jobs/{id}/spray/{aircraft}/record", at(job, aircraft))),
  });
}

export function useSignRecord(job: string, aircraft: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["SignSprayRecord"]) =>
      ask(api.POST("/jobs/{id}/spray/{aircraft}/record", { ...at(job, aircraft), body })),
    onSuccess: (d) => qc.setQueryData(keys.sprayRecord(job, aircraft), d),
  });
}

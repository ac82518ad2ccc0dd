import { wrote } from "../api/touched";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { asText } from "../parts/BringIn";

export type Plan = Schemas["MissionPlan"];
export type Flight = Schemas["MissionFlight"];
export type Wish = Schemas["MissionWish"];
export type After = Schemas["AfterFlight"];

const at = (id: string, aircraft: string) => ({ params: { path: { id, aircraft } } });
const of = (id: string, aircraft: string, number: number) => ({ params: { path: { id, aircraft, number } } });

export function usePlan(job: string, aircraft: string) {
  return useQuery({
    queryKey: keys.mission(job, aircraft),
    queryFn: () => ask(api.GET("/jobs/{id}/mission/{aircraft}", at(job, aircraft))),
  });
}

/** A wish worked out without keeping it; what was worked out before stands until the answer is there. */
export function useTry(job: string, aircraft: string, wish: Wish | undefined) {
  return useQuery({
    queryKey: keys.missionTry(job, aircraft, wish),
    queryFn: () => ask(api.POST("/jobs/{id}/mission/{aircraft}/try", { ...at(job, aircraft), body: wish! })),
    enabled: wish !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  });
}

/** Every change answers with the whole plan. */
function useChange<B>(job: string, aircraft: string, send: (body: B) => Promise<Plan>) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (p) => {
      qc.setQueryData(keys.mission(job, aircraft), p);
      void wrote(qc, "mission_plans", "jobs");
    },
  });
}

export const useSavePlan = (job: string, aircraft: string) =>
  useChange(job, aircraft, (body: Schemas["SaveMissionPlan"]) =>
    ask(api.PUT("/jobs/{id}/mission/{aircraft}", { ...at(job, aircraft), body })),
  );

export const useSend = (job: string, aircraft: string) =>
  useChange(job, aircraft, (number: number) =>
    ask(api.POST("/jobs/{id}/mission/{aircraft}/flights/{number}/send", of(job, aircraft, number))),
  );

export const useReadBack = (job: string, aircraft: string) =>
  useChange(job, aircraft, (number: number) =>
    ask(api.POST("/jobs/{id}/mission/{aircraft}/flights/{number}/read", of(job, aircraft, number))),
  );

export const useReadFile = (job: string, aircraft: string) =>
  useChange(job, aircraft, async ({ number, file }: { number: number; file: File }) =>
    ask(
      api.POST("/jobs/{id}/mission/{aircraft}/flights/{number}/read/file", {
        params: { path: { id: job, aircraft, number }, query: { name: file.name.slice(0, 120) } },
        body: await file.text(),
        ...asText,
      }),
    ),
  );

export const useFillCard = (job: string, aircraft: string) =>
  useChange(job, aircraft, (body: Schemas["NewCameraCard"]) =>
    ask(api.POST("/jobs/{id}/mission/{aircraft}/card", { ...at(job, aircraft), body })),
  );

export const useFlown = (job: string, aircraft: string, number: number) =>
  useChange(job, aircraft, (body: After) =>
    ask(
      api.POST("/jobs/{id}/mission/{aircraft}/flights/{number}/flown", {
        ...of(job, aircraft, number),
        body,
      }),
    ),
  );

export const useTakeBack = (job: string, aircraft: string) =>
  useChange(job, aircraft, (number: number) =>
    ask(api.DELETE("/jobs/{id}/mission/{aircraft}/flights/{number}/flown", of(job, aircraft, number))),
  );

export const useFlyAgain = (job: string, aircraft: string) =>
  useChange(job, aircraft, (number: number) =>
    ask(api.POST("/jobs/{id}/mission/{aircraft}/flights/{number}/again", of(job, aircraft, number))),
  );

export const useAddFinding = (job: string, aircraft: string) =>
  useChange(job, aircraft, (body: Schemas["NewPictureFinding"]) =>
    ask(api.POST("/jobs/{id}/mission/{aircraft}/findings", { ...at(job, aircraft), body })),
  );

export const useRemoveFinding = (job: string, aircraft: string) =>
  useChange(job, aircraft, (finding: string) =>
    ask(
      api.DELETE("/jobs/{id}/mission/{aircraft}/findings/{finding}", {
        params: { path: { id: job, aircraft, finding } },
      }),
    ),
  );

/** Pictures held against a flight without keeping anything. */
export function useLook(job: string, aircraft: string, number: number) {
  return useMutation({
    mutationFn: (body: After) =>
      ask(
        api.POST("/jobs/{id}/mission/{aircraft}/flights/{number}/look", {
          ...of(job, aircraft, number),
          body,
        }),
      ),
  });
}

/** The places of the pictures, from the aircraft or from a list. */
export const picturesOfAircraft = (job: string, aircraft: string) =>
  ask(api.GET("/jobs/{id}/mission/{aircraft}/pictures", at(job, aircraft)));

export const picturesOfList = async (job: string, aircraft: string, file: File) =>
  ask(
    api.POST("/jobs/{id}/mission/{aircraft}/pictures/list", {
      ...at(job, aircraft),
      body: await file.text(),
      ...asText,
    }),
  );

export const fileOf = (p: Plan, number: number, format: string) =>
  `/api/v1/jobs/${p.job_id}/mission/${p.aircraft_id}/flights/${number}/file?format=${format}`;

export function useCameras() {
  return useQuery({ queryKey: keys.cameras, queryFn: () => ask(api.GET("/cameras")) });
}

export function useSaveCamera() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["CameraKind"]) =>
      ask(api.PUT("/cameras/{id}", { params: { path: { id: body.id } }, body })),
    onSuccess: (d) => {
      qc.setQueryData(keys.cameras, d);
      void wrote(qc, "cameras");
    },
  });
}

export function useCanopies() {
  return useQuery({ queryKey: keys.canopies, queryFn: () => ask(api.GET("/canopies")) });
}

export function useSaveCanopy() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["CanopyKind"]) =>
      ask(api.PUT("/canopies/{id}", { params: { path: { id: body.id } }, body })),
    onSuccess: (d) => {
      qc.setQueryData(keys.canopies, d);
      void wrote(qc, "canopies");
    },
  });
}

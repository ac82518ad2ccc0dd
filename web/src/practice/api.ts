import { wrote } from "../api/touched";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";

export type Practice = Schemas["PracticeKept"];

/** Where crews differ, with what this crew keeps. */
export function usePractices() {
  return useQuery({ queryKey: keys.practices, queryFn: () => ask(api.GET("/practices")) });
}

/** What the crew keeps from now on; every judgement may change with it. */
export function useChoosePractice(id: Practice["id"]) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["PracticeEdit"]) =>
      ask(api.PUT("/practices/{id}", { params: { path: { id } }, body })),
    onSuccess: () => wrote(qc, "crew", "packs", "jobs"),
  });
}

/** A calibration of the compass, done now; the gate and the aircraft's page change with it. */
export function useCalibrate(aircraft: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["Calibrate"]) =>
      ask(api.POST("/aircraft/{id}/calibrations", { params: { path: { id: aircraft } }, body })),
    onSuccess: () => wrote(qc, "calibrations", "aircraft"),
  });
}

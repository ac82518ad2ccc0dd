import { useWrite } from "../api/write";
import { wrote } from "../api/touched";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";

export const useAircraft = (id: string) =>
  useQuery({
    queryKey: keys.aircraft(id),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id } } })),
    refetchInterval: 60_000,
  });

export const useFirmware = (id: string) =>
  useQuery({
    queryKey: keys.firmware(id),
    queryFn: () => ask(api.GET("/aircraft/{id}/firmware", { params: { path: { id } } })),
  });

function useLook() {
  const qc = useQueryClient();
  return () => wrote(qc, "firmware_installed", "firmware_sets", "work_orders");
}

/** Records what is installed in an aircraft. */
export function useInstalled(id: string) {
  const look = useLook();
  return useMutation({
    mutationFn: (versions: Record<string, string>) =>
      ask(api.PUT("/aircraft/{id}/firmware", { params: { path: { id } }, body: { versions } })),
    onSuccess: look,
  });
}

/** Puts versions on file as those of a type that were tested together. */
export function useTestedTogether(key: string) {
  const look = useLook();
  return useMutation({
    mutationFn: (set: Pick<Schemas["FirmwareSet"], "version" | "versions" | "note">) =>
      ask(api.POST("/types/{key}/firmware", { params: { path: { key } }, body: { type_key: key, ...set } })),
    onSuccess: look,
  });
}

/** Report what happened to an aircraft outside a flight. */
export const useReportIncident = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["Incident"] }) =>
      ask(api.POST("/aircraft/{id}/incidents", { params: { path: { id } }, body })),
    "incident_reports",
    "groundings",
    "defects",
    "work_orders",
  );

/** Ground an aircraft at once. */
export const useGroundAircraft = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["Ground"] }) =>
      ask(api.POST("/aircraft/{id}/ground", { params: { path: { id } }, body })),
    "groundings",
  );

/** Return an aircraft to service, signed. */
export const useReturnAircraft = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["ReturnToService"] }) =>
      ask(api.POST("/aircraft/{id}/return", { params: { path: { id } }, body })),
    "groundings",
  );

/** Fit new parts in place of what is at the stations. */
export const useFitParts = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["FitParts"] }) =>
      ask(api.POST("/aircraft/{id}/parts", { params: { path: { id } }, body })),
    "parts",
    "stock_lines",
    "work_orders",
  );

/** Add an aircraft. */
export const useAddAircraft = () =>
  useWrite(
    (body: Schemas["NewAircraft"]) => ask(api.POST("/aircraft", { body })),
    "aircraft",
    "parts",
    "work_orders",
  );

/** Change an aircraft. */
export const useUpdateAircraft = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["AircraftEdit"] }) =>
      ask(api.PUT("/aircraft/{id}", { params: { path: { id } }, body })),
    "aircraft",
    "weighings",
  );

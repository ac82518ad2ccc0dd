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

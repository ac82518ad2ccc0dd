import { asText, type Fetch } from "../parts/BringIn";
import { useWrite } from "../api/write";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { wrote } from "../api/touched";

export type Outcome = Schemas["PackOutcome"];

function useLook() {
  const qc = useQueryClient();
  return () => wrote(qc, "packs");
}

/** Moves several packs to one state; each by itself. */
export function useMovePacks() {
  const look = useLook();
  return useMutation({
    mutationFn: (body: Schemas["PackMoves"]) => ask(api.POST("/packs/moves", { body })),
    onSettled: look,
  });
}

/** Takes such moves back. */
export function useMovePacksBack() {
  const look = useLook();
  return useMutation({
    mutationFn: (body: Schemas["PackMovesBack"]) => ask(api.POST("/packs/moves/back", { body })),
    onSettled: look,
  });
}

/** Adds packs, all or none. */
export function useAddPacks() {
  const look = useLook();
  return useMutation({
    mutationFn: (body: Schemas["NewPacks"]) => ask(api.POST("/packs", { body })),
    onSuccess: look,
  });
}

/** Puts right what is on file of a pack. */
export function useCorrectPack(id: string) {
  const look = useLook();
  return useMutation({
    mutationFn: (body: Schemas["PackEdit"]) =>
      ask(api.PUT("/packs/{id}", { params: { path: { id } }, body })),
    onSuccess: look,
  });
}

/** Withdraws a reading of a pack. */
export function useWithdraw(id: string) {
  const look = useLook();
  return useMutation({
    mutationFn: ({ reading, why }: { reading: string; why: string }) =>
      ask(
        api.POST("/packs/{id}/readings/{reading}/withdraw", {
          params: { path: { id, reading } },
          body: { why },
        }),
      ),
    onSuccess: look,
  });
}

export const useRackHealth = () =>
  useQuery({ queryKey: keys.rackHealth, queryFn: () => ask(api.GET("/packs/health")), staleTime: 60_000 });

/** Keeps a reading of a pack; it is judged at once. */
export function useReadPack(id: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewReading"]) =>
      ask(api.POST("/packs/{id}/readings", { params: { path: { id } }, body })),
    onSuccess: () => wrote(qc, "packs", "pack_readings", "pack_outlooks"),
  });
}

/** Move a pack to another state. */
export const useMovePack = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["PackMove"] }) =>
      ask(api.POST("/packs/{id}/state", { params: { path: { id } }, body })),
    "packs",
  );

/** Compute the forecast of all packs again, in the background. */
export const useComputeForecasts = () => useWrite(() => ask(api.POST("/packs/forecasts")), "background_work");

/** A look at all six faces of a pack. */
export const useLookAtPack = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["NewLook"] }) =>
      ask(api.POST("/packs/{id}/looks", { params: { path: { id } }, body })),
    "packs",
    "pack_looks",
  );

/** Put the disposal of a quarantined pack on record. */
export const useDisposePack = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["Disposal"] }) =>
      ask(api.POST("/packs/{id}/dispose", { params: { path: { id } }, body })),
    "packs",
  );

/** The file of a charger; each line is accounted for. */
export const bringReadings = async (file: File, fetch: Fetch) =>
  ask(api.POST("/packs/import", { body: await file.text(), ...asText, fetch }));

/** Puts a pack on a channel of the charger, or stops the channel; answers with all channels. */
export const useCharge = () =>
  useWrite(
    ({ channel, body }: { channel: number; body?: Schemas["StartCharge"] }) => {
      const params = { path: { channel } };
      return ask(
        body
          ? api.POST("/charger/{channel}", { params, body })
          : api.DELETE("/charger/{channel}", { params }),
      );
    },
    "packs",
    "charges",
  );

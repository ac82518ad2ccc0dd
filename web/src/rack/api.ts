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

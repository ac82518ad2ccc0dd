import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";

export type Outcome = Schemas["PackOutcome"];

/** Pages that show where packs are. */
const touched = [["packs"], ["day"], ["gate"], ["sets"], ["evening"]];

function useLook() {
  const qc = useQueryClient();
  return () => touched.forEach((queryKey) => void qc.invalidateQueries({ queryKey }));
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

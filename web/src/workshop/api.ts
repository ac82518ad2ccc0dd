import { wrote } from "../api/touched";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask, newId } from "../api/client";
import type { Opened, Wanted } from "./model";

function useLook() {
  const qc = useQueryClient();
  return () => wrote(qc, "work_orders");
}

/** Opens a work order for each of several things; what is refused leaves the others alone. */
export function useOpenOrders() {
  const look = useLook();
  return useMutation({
    mutationFn: async (all: Wanted[]): Promise<Opened[]> => {
      const out: Opened[] = [];
      for (const w of all) {
        const body = {
          id: newId(),
          aircraft_id: w.aircraft,
          task_id: w.task ?? "",
          defect_id: w.defect ?? null,
          station: "",
          title: "",
          steps: [],
          second_person: false,
          acceptance: [],
        };
        try {
          out.push({ name: w.name, order: (await ask(api.POST("/work-orders", { body }))).id });
        } catch (e) {
          // Also a lost connection: what was opened before is told, and can be taken back.
          out.push({ name: w.name, refused: e instanceof Error ? e.message : String(e) });
        }
      }
      return out;
    },
    onSettled: look,
  });
}

/** Cancels work orders that were opened together a moment ago. */
export function useCancelOrders() {
  const look = useLook();
  return useMutation({
    mutationFn: async (ids: string[]) => {
      for (const id of ids)
        await ask(
          api.POST("/work-orders/{id}/cancel", {
            params: { path: { id } },
            body: { reason: "Opened with others and taken back at once." },
          }),
        );
    },
    onSettled: look,
  });
}

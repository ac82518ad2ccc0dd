import { useWrite } from "../api/write";
import { wrote } from "../api/touched";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask, newId, type Schemas } from "../api/client";
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

/** A technician or chief has looked at a defect, says what was done, and signs. */
export const useSettleDefect = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["DefectSettled"] }) =>
      ask(api.POST("/defects/{id}/settle", { params: { path: { id } }, body })),
    "defects",
    "deferrals",
  );

/** Approve third-party parts of a kind for a type. */
export const useApproveParts = () =>
  useWrite(
    (body: Schemas["Approval"]) => ask(api.POST("/approvals", { body })),
    "stock_lines",
    "part_approvals",
  );

/** Put a new part on the shelf. */
export const useAddPart = () =>
  useWrite((body: Schemas["NewPart"]) => ask(api.POST("/parts", { body })), "stock_lines", "part_approvals");

/** Cancel a work order that was opened by mistake. */
export const useCancelWorkOrder = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["Why"] }) =>
      ask(api.POST("/work-orders/{id}/cancel", { params: { path: { id } }, body })),
    "work_orders",
    "work_entries",
    "work_used",
    "parts",
  );

/** Enter what was done and measured. */
export const useEnterSteps = () =>
  useWrite(({ id, body }: { id: string; body: Schemas["StepEntries"] }) =>
    ask(api.PUT("/work-orders/{id}/entries", { params: { path: { id } }, body })),
  );

/** Add a stock line, or change one. */
export const useSaveStock = () => useWrite((body: Schemas["StockEdit"]) => ask(api.PUT("/stock", { body })));

/** Take a part off, or discard one from the shelf. */
export const useRemovePart = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["RemovePart"] }) =>
      ask(api.POST("/parts/{id}/remove", { params: { path: { id } }, body })),
    "parts",
  );

/** Swap two fitted parts of one kind. */
export const useSwapPart = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["SwapPart"] }) =>
      ask(api.POST("/parts/{id}/swap", { params: { path: { id } }, body })),
    "parts",
    "stock_lines",
  );

/** Take parts from stock for a work order. */
export const useUseStock = () =>
  useWrite(({ id, body }: { id: string; body: Schemas["NewWorkUse"] }) =>
    ask(api.POST("/work-orders/{id}/parts", { params: { path: { id } }, body })),
  );

/** Open a work order for a task, a defect or by hand. */
export const useOpenWorkOrder = () =>
  useWrite(
    (body: Schemas["NewWorkOrder"]) => ask(api.POST("/work-orders", { body })),
    "work_orders",
    "groundings",
  );

/** Sign the work. */
export const useSignWorkOrder = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["WorkSign"] }) =>
      ask(api.POST("/work-orders/{id}/sign", { params: { path: { id } }, body })),
    "work_orders",
    "task_done",
    "defects",
    "deferrals",
    "groundings",
    "parts",
    "calibrations",
  );

/** Put off a defect or a task where the programme allows it. */
export const useDefer = () =>
  useWrite((body: Schemas["NewDeferral"]) => ask(api.POST("/deferrals", { body })), "deferrals", "defects");

import { wrote } from "../../api/touched";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, ask, newId, type Schemas } from "../../api/client";
import { keys } from "../../api/keys";
import { seedFlight, type FlightPresses } from "../model";
import { usePress } from "../../outbox/hooks";
import { usePacks } from "../../api/queries";
import { afterPaint } from "../../parts/afterPaint";
import { letGo } from "../../parts/letGo";

/** The gate's answer to a question; the one before stays in sight while it is asked again. */
export function useGate(question: Schemas["GateQuestion"]) {
  return useQuery({
    queryKey: keys.gate(question.aircraft_id, question),
    queryFn: () => ask(api.POST("/gate", { body: question })),
    refetchInterval: 60_000,
    placeholderData: keepPreviousData,
  });
}

/** Signs a gate. */
export function useRelease() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewRelease"]) => ask(api.POST("/releases", { body })),
    onSuccess: () => wrote(qc, "releases", "packs", "flights"),
    onError: () => void qc.invalidateQueries({ queryKey: ["gate"] }),
  });
}

/** Takes a release back. */
export function useWithdrawRelease(id: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: () => ask(api.POST("/releases/{id}/withdraw", { params: { path: { id } } })),
    onSuccess: () => wrote(qc, "releases", "packs"),
  });
}

/** Takes off on a release: the flight is on this device at once, and on the server as soon as it hears of it. */
export function useTakeOff(g: Schemas["GateAnswer"], r: Schemas["Release"]) {
  const press = usePress();
  const go = useNavigate();
  const packs = usePacks().data?.packs ?? [];
  return (at: number) => {
    const id = newId();
    const seed = seedFlight(g, r, packs, id, new Date(at).toISOString());
    press<FlightPresses["fly.take-off"]>(
      "fly.take-off",
      id,
      { release_id: r.id, seed },
      { opens: true },
      afterPaint,
    );
    afterPaint(() => {
      letGo();
      void go(`/fly/${id}`);
    });
  };
}

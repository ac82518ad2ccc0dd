import { wrote } from "../api/touched";
import type { QueryClient } from "@tanstack/react-query";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { useAbout, usePress } from "../outbox/hooks";
import { answered, pressKind, type Sending } from "../outbox/kinds";
import type { Press } from "../outbox/model";
import { serverIso } from "../parts/time";
import type { Plan } from "./api";
import { guides } from "./checks";
import { checksThing, planThing, withPresses, type SprayPresses } from "./presses";

/** The plan of an aircraft of a job, with what this device has pressed since. */
export function usePlan(job: string, aircraft: string) {
  const about = useAbout(planThing(job, aircraft));
  const query = useQuery({
    queryKey: keys.spray(job, aircraft),
    queryFn: () => ask(api.GET("/jobs/{id}/spray/{aircraft}", { params: { path: { id: job, aircraft } } })),
  });
  const plan = useMemo(
    () => query.data && withPresses(query.data, about.waiting, serverIso),
    [query.data, about.waiting],
  );
  return { query, plan, about };
}

type OfPlan = Exclude<keyof SprayPresses, "spray.check">;

/** Presses at the truck: shown at once, sent when the server is there. */
export function usePlanPress(job: string, aircraft: string) {
  const press = usePress();
  return <K extends OfPlan>(kind: K, body: Omit<SprayPresses[K], "job" | "aircraft">) =>
    press(kind, planThing(job, aircraft), { ...body, job, aircraft });
}

/** A calibration, put on record when the server is there. */
export function useCheckPress(aircraft: string) {
  const press = usePress();
  return (body: Omit<SprayPresses["spray.check"], "aircraft">) =>
    press("spray.check", checksThing(aircraft), { ...body, aircraft });
}

function look(qc: QueryClient) {
  void wrote(qc, "spray_plans", "spray_done", "jobs");
}

async function take(qc: QueryClient, p: Press<{ job: string; aircraft: string }>, plan: Plan) {
  await answered(qc, keys.spray(p.body.job, p.body.aircraft), plan);
  look(qc);
}

const at = ({ header, signal }: Sending, b: { job: string; aircraft: string }) => ({
  params: { header, path: { id: b.job, aircraft: b.aircraft } },
  signal,
});

const atFill = ({ header, signal }: Sending, b: { job: string; aircraft: string; number: number }) => ({
  params: { header, path: { id: b.job, aircraft: b.aircraft, number: b.number } },
  signal,
});

pressKind<SprayPresses["spray.done"]>("spray.done", {
  said: () => "What was sprayed",
  send: async (p, how, qc) =>
    take(
      qc,
      p,
      await ask(
        api.POST("/jobs/{id}/spray/{aircraft}/done", {
          ...at(how, p.body),
          body: { parts: p.body.parts, version: p.body.version },
        }),
      ),
    ),
});
pressKind<SprayPresses["spray.back"]>("spray.back", {
  said: () => "Sprayed, taken back",
  send: async (p, how, qc) =>
    take(
      qc,
      p,
      await ask(
        api.POST("/jobs/{id}/spray/{aircraft}/done/back", { ...at(how, p.body), body: { ids: p.body.ids } }),
      ),
    ),
});
pressKind<SprayPresses["spray.tick"]>("spray.tick", {
  said: (b) => (b.in ? `${b.what} is in` : `${b.what} is not in`),
  send: async (p, how, qc) => {
    const { fill, line, in: went, what, amount } = p.body;
    const body = { id: fill, version: 0, line, in: went, what, amount };
    await take(
      qc,
      p,
      await ask(api.PUT("/jobs/{id}/spray/{aircraft}/fills/{number}", { ...atFill(how, p.body), body })),
    );
  },
});
pressKind<SprayPresses["spray.mass"]>("spray.mass", {
  said: () => "Weighed before take-off",
  send: async (p, how, qc) => {
    const body = { id: p.body.fill, version: 0, mass_kg: p.body.mass_kg };
    await take(
      qc,
      p,
      await ask(api.PUT("/jobs/{id}/spray/{aircraft}/fills/{number}", { ...atFill(how, p.body), body })),
    );
  },
});
pressKind<SprayPresses["spray.check"]>("spray.check", {
  said: (b) => guides[b.kind].name,
  send: async (p, how, qc) => {
    const { aircraft, ...body } = p.body;
    const d = await ask(
      api.POST("/aircraft/{id}/spray-checks", {
        params: { header: how.header, path: { id: aircraft } },
        signal: how.signal,
        body,
      }),
    );
    await answered(qc, keys.sprayChecks(aircraft), d);
    look(qc);
  },
});

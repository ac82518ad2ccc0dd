import { useWrite } from "../api/write";
import { useQuery, type QueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useAbout, usePress, usePresses } from "../outbox/hooks";
import { answered, pressKind, type Sending } from "../outbox/kinds";
import type { Press } from "../outbox/model";
import { clearDraft } from "../parts/drafts";
import { serverIso, setServerTime } from "../parts/time";
import { eventWords, withPresses, type Flight, type FlightPresses } from "./model";

/** The flight as it is on the server, with what this device has pressed since. */
export function useFlight(id: string) {
  const about = useAbout(id);
  const { waiting } = about;
  const opening = [...waiting, ...about.refused].find((p) => p.opens) as
    Press<FlightPresses["fly.take-off"]> | undefined;
  const q = useQuery({
    queryKey: keys.flight(id),
    queryFn: async () => {
      const f = await ask(api.GET("/flights/{id}", { params: { path: { id } } }));
      setServerTime(f.now);
      return f;
    },
    enabled: !opening,
    refetchInterval: (x) => (x.state.data?.state === "air" ? 5000 : false),
  });
  const base = q.data ?? opening?.body.seed;
  const flight = useMemo(() => base && withPresses(base, waiting, serverIso), [base, waiting]);
  return { query: q, flight, about, opening };
}

/** Presses of a flight: shown at once, sent when the server is there. */
export function useFlightPress(id: string) {
  const press = usePress();
  return <K extends keyof FlightPresses>(
    kind: K,
    body: FlightPresses[K],
    more?: Partial<Press<FlightPresses[K]>>,
  ) => press(kind, id, body, more);
}

/** Flights that this device has pressed something about and that are not on the server's pages yet. */
export function useOwnFlights(): Press<FlightPresses["fly.take-off"]>[] {
  return usePresses().filter((p) => p.kind === "fly.take-off") as Press<FlightPresses["fly.take-off"]>[];
}

const take = (qc: QueryClient, f: Flight) => answered(qc, keys.flight(f.id), f);

const at = ({ header, signal }: Sending, id: string) => ({ params: { header, path: { id } }, signal });

/** Under which the log of a flight is kept while it is typed. */
export const logDraft = (flight: string) => `log-${flight}`;

/** Tables whose pages look again after a flight began or ended. */
const touched = [["day"], ["fleet"], ["gate"], ["log"], ["packs"], ["due"], ["jobs"]];

function look(qc: QueryClient) {
  touched.forEach((queryKey) => void qc.invalidateQueries({ queryKey }));
}

pressKind<FlightPresses["fly.take-off"]>("fly.take-off", {
  said: (b) => `Take-off of ${b.seed.aircraft}`,
  send: async (p, how, qc) => {
    await take(
      qc,
      await ask(
        api.POST("/flights", {
          params: { header: how.header },
          signal: how.signal,
          body: { id: p.thing, release_id: p.body.release_id, device_at: new Date(p.at).toISOString() },
        }),
      ),
    );
    look(qc);
  },
});
pressKind<FlightPresses["fly.event"]>("fly.event", {
  said: (b) => eventWords[b.kind],
  send: async (p, how, qc) =>
    await take(qc, await ask(api.POST("/flights/{id}/events", { ...at(how, p.thing), body: p.body }))),
});
pressKind<FlightPresses["fly.event-back"]>("fly.event-back", {
  said: (b) => `Take back: ${eventWords[b.kind]}`,
  send: async (p, how, qc) =>
    await take(
      qc,
      await ask(
        api.DELETE("/flights/{id}/events/{event}", {
          params: { header: how.header, path: { id: p.thing, event: p.body.event } },
          signal: how.signal,
        }),
      ),
    ),
});
pressKind<FlightPresses["fly.land"]>("fly.land", {
  said: () => "Landing",
  send: async (p, how, qc) => {
    await take(qc, await ask(api.POST("/flights/{id}/land", at(how, p.thing))));
    look(qc);
  },
});
pressKind<FlightPresses["fly.resume"]>("fly.resume", {
  said: () => "Landing taken back",
  send: async (p, how, qc) => {
    await take(qc, await ask(api.POST("/flights/{id}/resume", at(how, p.thing))));
    look(qc);
  },
});
pressKind<FlightPresses["fly.hover"]>("fly.hover", {
  said: () => "Motors in the hover",
  send: async (p, how, qc) => {
    const hover = await ask(api.PUT("/flights/{id}/hover", { ...at(how, p.thing), body: p.body }));
    await answered<Flight>(qc, keys.flight(p.thing), (f) => f && { ...f, hover });
  },
});
pressKind<FlightPresses["fly.log"]>("fly.log", {
  said: () => "The log of the flight",
  send: async (p, how, qc) => {
    await take(qc, await ask(api.POST("/flights/{id}/log", { ...at(how, p.thing), body: p.body })));
    clearDraft(logDraft(p.thing));
    look(qc);
  },
});

/** Correct a logged flight by a new entry that names it. */
export const useCorrectFlight = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["NewCorrection"] }) =>
      ask(api.POST("/flights/{id}/corrections", { params: { path: { id } }, body })),
    "flights",
    "flight_corrections",
    "parts",
  );

/** Puts on record what an empty aircraft, or its packs, weigh. */
export const useWeighAircraft = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["NewWeighing"] }) =>
      ask(api.POST("/aircraft/{id}/weighings", { params: { path: { id } }, body })),
    "weighings",
  );

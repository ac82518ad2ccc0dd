import type { Schemas } from "../api/client";
import { reader, type Press } from "../outbox/model";

export type Flight = Schemas["Flight"];
export type EventKind = Schemas["EventKind"];

/** What can be pressed in a flight, and what each carries; the names outlive the page. */
export interface FlightPresses {
  "fly.take-off": { release_id: string; seed: Flight };
  "fly.event": { id: string; kind: EventKind; note: string };
  "fly.event-back": { event: string; kind: EventKind };
  "fly.land": Record<string, never>;
  "fly.resume": Record<string, never>;
  "fly.hover": { outputs: number[] };
  "fly.log": Schemas["NewLog"];
}

export const eventWords: Record<EventKind, string> = {
  warning: "Warning",
  gust: "Gust",
  bird: "Bird",
  person: "Person in area",
  "link-loss": "Link lost",
  takeover: "Takeover",
  "hard-landing": "Hard landing",
  contact: "Contact",
  vibration: "Vibration",
  "call-out": "Pack called",
};

/** Events that ground the aircraft; they are not taken back. */
export const grounds = (k: EventKind) => k === "contact" || k === "hard-landing";

/** What calls the landing first, as the crew keeps it, and what else does. */
export function landingCalls(t: Schemas["TypeEntry"]): { first: string; then: string } {
  const { limits, packs } = t.profile;
  const said = {
    percent: `${limits.land_by_percent} %`,
    volts: `${((limits.land_by_cell_mv * packs.cells) / 1000).toFixed(1)} V`,
    minutes: `${limits.planned_minutes} min`,
  };
  const cell = `${(limits.land_by_cell_mv / 1000).toFixed(2)} V a cell under load`;
  const rest = (["percent", "volts"] as const).filter((k) => k !== t.landing_call).map((k) => said[k]);
  return { first: said[t.landing_call], then: `or ${rest.join(", ")}; ${cell}` };
}

/** A flight that only this device knows: released, and taken off without an answer yet. */
export function seedFlight(
  g: Schemas["GateAnswer"],
  r: Schemas["Release"],
  packs: Schemas["Pack"][],
  id: string,
  at: string,
): Flight {
  const job = g.jobs.find((j) => j.id === r.job_id);
  return {
    id,
    aircraft_id: g.aircraft.id,
    aircraft: g.aircraft.name,
    type: g.type,
    pilot_id: r.pilot_id,
    pilot: r.pilot,
    packs: r.pack_ids.flatMap((p) => packs.filter((k) => k.id === p)),
    purpose: r.purpose,
    took_off_at: at,
    landed_at: null,
    logged_at: null,
    state: "air",
    seconds: 0,
    landings: 0,
    remarks: "",
    hover: null,
    warmth: null,
    events: [],
    acceptance: "",
    alerts: [],
    corrections: [],
    litres: 0,
    now: at,
    job_id: r.job_id ?? null,
    ...(job ? { job: job.aim } : {}),
  };
}

const secondsBetween = (from: string, to: string) =>
  Math.max(0, Math.round((Date.parse(to) - Date.parse(from)) / 1000));

const body = reader<FlightPresses>();

/** A flight as it will be when the server has taken one more press, made at a moment of the server's clock. */
export function pressed(f: Flight, p: Press, at: string): Flight {
  const event = body(p, "fly.event");
  if (event)
    return f.events.some((e) => e.id === event.id)
      ? f
      : { ...f, events: [...f.events, { ...event, at, by: p.personName }] };
  const back = body(p, "fly.event-back");
  if (back)
    return {
      ...f,
      events: f.events.map((e) => (e.id === back.event ? { ...e, taken_back_by: p.personName } : e)),
    };
  if (body(p, "fly.land") && f.state === "air")
    return { ...f, state: "landed", landed_at: at, seconds: secondsBetween(f.took_off_at, at) };
  if (body(p, "fly.resume") && f.state === "landed")
    return { ...f, state: "air", landed_at: null, seconds: 0 };
  const log = body(p, "fly.log");
  if (log && f.state === "landed")
    return {
      ...f,
      state: "logged",
      logged_at: at,
      landings: log.landings,
      litres: log.litres ?? 0,
      remarks: log.remarks,
    };
  return f;
}

/** A flight with all presses that wait. */
export function withPresses(f: Flight, waiting: Press[], toIso: (deviceMs: number) => string): Flight {
  return waiting.reduce((g, p) => pressed(g, p, toIso(p.at)), f);
}

/** What ends soonest: calls and land-by as a sign to hear, each once. */
export interface Signal {
  key: string;
  words: string;
  urgent: boolean;
}

/** Seconds before the planned end at which it is said that it comes. */
export const warnBefore = 60;

/** What is due t seconds after take-off: a pack call, one minute left, land by now. */
export function signals(f: Flight, t: number): Signal[] {
  const every = f.type.profile.packs.call_out_every_s;
  const planned = f.type.profile.limits.planned_minutes * 60;
  const called = f.events.filter((e) => e.kind === "call-out" && e.taken_back_by === undefined).length;
  const out: Signal[] = [];
  if (every > 0 && t >= (called + 1) * every)
    out.push({ key: `call-${called + 1}`, words: "Call the pack", urgent: false });
  if (t >= planned) out.push({ key: "land-by", words: "Land now", urgent: true });
  else if (t >= planned - warnBefore)
    out.push({ key: "land-soon", words: "One minute to land by", urgent: false });
  return out;
}

/** Minutes and seconds of a clock that runs: 04:05. */
export function clock(seconds: number): string {
  const s = Math.max(0, Math.floor(seconds));
  return `${String(Math.floor(s / 60)).padStart(2, "0")}:${String(s % 60).padStart(2, "0")}`;
}

import type { Schemas } from "../api/client";
import { reader, type Press } from "../outbox/model";
import type { Plan } from "./api";
import { isDone, sheetOf } from "./model";

type Part = Schemas["NewSprayedPart"];

/** What can be pressed at the truck, and what each carries; the names outlive the page. */
export interface SprayPresses {
  "spray.done": { job: string; aircraft: string; parts: Part[]; version: number };
  "spray.back": { job: string; aircraft: string; ids: string[] };
  "spray.tick": {
    job: string;
    aircraft: string;
    fill: string;
    number: number;
    line: number;
    in: boolean;
    what: string;
    amount: number;
  };
  "spray.mass": { job: string; aircraft: string; fill: string; number: number; mass_kg: number };
  "spray.check": Schemas["NewSprayCheck"] & { aircraft: string };
}

/** What presses of a plan are kept under. */
export const planThing = (job: string, aircraft: string) => `spray ${job} ${aircraft}`;

/** What presses of the calibrations of an aircraft are kept under. */
export const checksThing = (aircraft: string) => `spray-checks ${aircraft}`;

const body = reader<SprayPresses>();

/** A plan as it will be when the server has taken one more press; its flights are divided anew only there. */
export function pressed(p: Plan, x: Press, at: string): Plan {
  const done = body(x, "spray.done");
  if (done) return sprayed(p, done.parts, x.personName, at);
  const back = body(x, "spray.back");
  if (back) return { ...p, done: p.done.filter((d) => !back.ids.includes(d.id)) };
  const tick = body(x, "spray.tick");
  if (tick)
    return withFill(p, tick, x.personName, at, (f) => ({
      ...f,
      lines: f.lines.map((l, i) =>
        i !== tick.line
          ? l
          : { ...l, first: tick.in ? l.first || x.personName : "", second: tick.in ? l.second : "" },
      ),
    }));
  const mass = body(x, "spray.mass");
  if (mass) return withFill(p, mass, x.personName, at, (f) => ({ ...f, mass_kg: mass.mass_kg }));
  return p;
}

function sprayed(p: Plan, parts: Part[], by: string, at: string): Plan {
  const fresh = parts.filter((x) => !p.done.some((d) => d.id === x.id));
  if (fresh.length === 0) return p;
  const area = (x: Part) => ((p.passes[x.pass]?.area_m2 ?? 0) * (x.to_share - x.from_share)) / 1e4;
  const done = [
    ...p.done,
    ...fresh.map((x) => ({ ...x, ha: area(x), litres: area(x) * p.settings.rate, at, by })),
  ];
  const [first, ...later] = p.sorties;
  const legs = first?.legs.filter((l) => !isDone({ done }, l.pass)) ?? [];
  return {
    ...p,
    done,
    done_ha: p.done_ha + fresh.reduce((s, x) => s + area(x), 0),
    sorties: first && legs.length > 0 ? [{ ...first, legs }, ...later] : later,
    loads: first && legs.length > 0 ? p.loads : p.loads.slice(1),
  };
}

type Fill = Plan["fills"][number];

function withFill(p: Plan, b: { number: number }, by: string, at: string, change: (f: Fill) => Fill): Plan {
  const begun: Fill = p.fills.find((f) => f.number === b.number) ?? {
    number: b.number,
    litres: p.loads[0]?.litres ?? 0,
    ha: p.loads[0]?.ha ?? 0,
    mass_kg: null,
    by,
    at,
    version: 0,
    complete: false,
    lines: sheetOf(p),
  };
  const next = change(begun);
  const complete = next.mass_kg != null && next.lines.every((l) => l.first && l.second);
  const others = p.fills.filter((f) => f.number !== b.number);
  return { ...p, fills: [...others, { ...next, complete }].sort((x, y) => x.number - y.number) };
}

/** A plan with all presses that wait. */
export function withPresses(p: Plan, waiting: Press[], toIso: (deviceMs: number) => string): Plan {
  return waiting.reduce((q, x) => pressed(q, x, toIso(x.at)), p);
}

/** How far a filled aircraft may be from what it should weigh, kg: as the server holds it. */
export const massWithin = 1.5;

/** What is wrong with a weighed mass, before it is kept; nothing is right. */
export function massFault(kg: number, should: number, show: (kg: number) => string): string | undefined {
  return Math.abs(kg - should) > massWithin
    ? `With this load it should be ${show(should)}. Look what is in the tank, and what else is on board.`
    : undefined;
}

import type { Schemas } from "../../api/client";
import { parseInRange } from "../../parts/number";
import type { Units } from "../../parts/units";

type Finding = Schemas["Finding"];
type Kind = NonNullable<Finding["remedy"]>["kind"];

/** Who can lift a finding, in the order in which a pilot asks them. */
export type Lifter = "here" | "pilot" | "workshop" | "office" | "nobody";

export const lifterWords: Record<Lifter, string> = {
  here: "On this page",
  pilot: "By you and the crew on site",
  workshop: "By a technician or chief",
  office: "By a chief",
  nobody: "By nobody here: wait, or choose another place, time or aircraft",
};

/** Who does what a remedy says. */
export function lifterOf(kind: Kind | undefined): Lifter {
  switch (kind) {
    case undefined:
      return "nobody";
    case "enter-wind":
    case "choose-packs":
    case "jobs":
    case "release":
      return "here";
    case "acceptance":
    case "walkround":
    case "turnaround":
    case "walkround-resume":
    case "briefing":
    case "fitness":
    case "flight":
    case "flight-log":
    case "gear":
    case "job":
    case "job-decide":
    case "job-mass":
    case "job-rules":
    case "pack-look":
    case "pack-read":
    case "rack":
    case "readiness":
    case "site":
    case "site-airspace":
    case "site-home":
    case "site-weather":
    case "mission":
    case "spray-plan":
    case "spray-checks":
      return "pilot";
    case "aircraft":
    case "defect":
    case "mass":
    case "order":
    case "propellers":
    case "return":
    case "station":
    case "task":
      return "workshop";
    case "documents":
    case "person":
    case "programme":
    case "reports":
      return "office";
    default:
      return kind satisfies never;
  }
}

/** The findings of a gate, those of each lifter together, worst first as they came. */
export function byLifter(findings: Finding[]): { lifter: Lifter; findings: Finding[] }[] {
  const order: Lifter[] = ["here", "pilot", "workshop", "office", "nobody"];
  return order
    .map((lifter) => ({ lifter, findings: findings.filter((f) => lifterOf(f.remedy?.kind) === lifter) }))
    .filter((g) => g.findings.length > 0);
}

export interface WindTyped {
  at: string;
  steady: string;
  gust: string;
  height: string;
  ground: Schemas["WindReading"]["ground"];
}

export const blankWind: WindTyped = { at: "", steady: "", gust: "", height: "", ground: "open" };

export type WindWrong = Partial<Record<keyof WindTyped, string>>;

/** What was typed as a reading in SI, or what is wrong with it; an empty steady wind is no reading. */
export function readWind(
  t: WindTyped,
  u: Pick<Units, "value" | "label" | "toBase">,
): { wind?: Schemas["WindReading"]; wrong: WindWrong } {
  const wrong: WindWrong = {};
  const speed = (max: number) => [0, u.value("speed", max), u.label("speed")] as const;
  const steady = parseInRange(t.steady, ...speed(60));
  const gust = parseInRange(t.gust, ...speed(90));
  const height = parseInRange(t.height, u.value("length", 0.5), u.value("length", 500), u.label("length"));
  if (!steady.ok && !steady.empty) wrong.steady = steady.sentence;
  if (!gust.ok && !gust.empty) wrong.gust = gust.sentence;
  if (!height.ok && !height.empty) wrong.height = height.sentence;
  if (steady.ok && gust.ok && gust.value < steady.value)
    wrong.gust = "A gust is at least as strong as the steady wind.";
  if (!steady.ok || !t.at || Object.keys(wrong).length > 0) return { wrong };
  return {
    wrong,
    wind: {
      at: t.at,
      steady_ms: u.toBase("speed", steady.value),
      gust_ms: gust.ok ? u.toBase("speed", gust.value) : null,
      measured_m: height.ok ? u.toBase("length", height.value) : 2,
      ground: t.ground,
    },
  };
}

/** How long a reading of the wind holds, in ms. */
export const windHolds = 60 * 60_000;

/** The wind measured at this site before, while it still holds and nothing else is entered; its age goes on from when it was measured. */
export function windOffer(
  now: WindTyped,
  kept: Partial<WindTyped> | undefined,
  at: number,
): WindTyped | undefined {
  if (now.steady.trim() !== "" || !kept?.steady || !kept.at) return undefined;
  const age = at - Date.parse(kept.at);
  if (!(age >= 0 && age < windHolds)) return undefined;
  return { ...blankWind, ...kept };
}

/** The choice of a flight that belongs to no job; it is a choice, and stays. */
export const noJob = "none";

export interface Kept {
  /** The job the flight belongs to: null while nothing was chosen. */
  job: string | null;
  packs: string[] | null;
  wind: WindTyped;
  purpose: string;
}

/** The job as the server takes it. */
export const jobOf = (k: Pick<Kept, "job">) => (k.job && k.job !== noJob ? k.job : null);

/** How near the end of a signature is before it is said, in ms. */
const near = 15 * 60_000;

/** Whether a release holds, lapses soon, or has lapsed, and in how many minutes. */
export function lapse(until: string, now: number): { state: "holds" | "soon" | "over"; minutes: number } {
  const left = Date.parse(until) - now;
  const minutes = Math.max(0, Math.floor(left / 60_000));
  if (!(left > 0)) return { state: "over", minutes: 0 };
  return { state: left <= near ? "soon" : "holds", minutes };
}

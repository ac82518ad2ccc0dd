import type { Schemas } from "../api/client";
import { parseInRange } from "../parts/number";
import type { Flight, Plan } from "./api";

/** The standing of what an aircraft holds, in words, with the verdict of it. */
export const standings: Record<Flight["standing"], { words: string; verdict: Schemas["Verdict"] }> = {
  "not-read": { words: "not read back", verdict: "stop" },
  old: { words: "read back, but something changed since", verdict: "stop" },
  different: { words: "different from the plan", verdict: "stop" },
  equal: { words: "read back, equal to the plan", verdict: "clear" },
};

/** The flight that is looked at: the one asked for, or the next to fly, or the first. */
export function flightShown(p: Plan, asked: string | null): Flight | undefined {
  const n = Number(asked) || p.next || 1;
  return p.flights.find((f) => f.number === n) ?? p.flights[0];
}

/** Minutes as they are said: 7 min 30 s is 8, never less than 1. */
export const minutes = (seconds: number) => Math.max(1, Math.round(seconds / 60));

/** A stretch of a row of the overlap map that is drawn in one go, as dark as its level says, 1 to 5. */
export interface Band {
  row: number;
  from: number;
  to: number;
  level: number;
}

/** The overlap map in as few rectangles as say the same: seen as often as wanted is level 5, less often less dark. */
export function bands(views: number[], columns: number, wanted: number): Band[] {
  const out: Band[] = [];
  views.forEach((v, i) => {
    const level = v <= 0 ? 0 : Math.min(5, Math.max(1, Math.floor((5 * v) / Math.max(wanted, 1))));
    if (level === 0) return;
    const [row, column] = [Math.floor(i / columns), i % columns];
    const last = out.at(-1);
    if (last && last.row === row && last.to === column && last.level === level) last.to = column + 1;
    else out.push({ row, from: column, to: column + 1, level });
  });
  return out;
}

/** A picture as its file tells it; the place is missing where the file has none. */
export interface Tags {
  latitude?: number;
  longitude?: number;
  DateTimeOriginal?: Date | string;
}

const finite = (v: unknown): v is number => typeof v === "number" && Number.isFinite(v);

/** What is sent of a picture. A time without a zone counts as UTC; a place that cannot be is none. */
export function shotOf(name: string, t: Tags | undefined): Schemas["PictureShot"] {
  const at =
    t &&
    finite(t.latitude) &&
    finite(t.longitude) &&
    Math.abs(t.latitude) <= 90 &&
    Math.abs(t.longitude) <= 180
      ? { lat: t.latitude, lon: t.longitude }
      : null;
  return { name: name.slice(0, 200), at, time: timeOf(t?.DateTimeOriginal) };
}

function timeOf(v: Date | string | undefined): string | null {
  if (v === undefined) return null;
  const text = typeof v === "string" ? v.replace(/^(\d{4}):(\d\d):(\d\d) /, "$1-$2-$3T") + "Z" : "";
  const d = typeof v === "string" ? new Date(text) : v;
  return Number.isNaN(d.getTime()) ? null : d.toISOString();
}

/** How far the side view reaches: along it, and from its lowest to its highest. */
export function sideBox(side: Schemas["SidePlace"][]) {
  const highs = side.flatMap((s) => (s.ground_m == null ? [s.flown_m] : [s.flown_m, s.ground_m]));
  return {
    along: Math.max(1, ...side.map((s) => s.along_m)),
    low: Math.min(...highs),
    high: Math.max(...highs),
  };
}

/**
 * Where labels stand that would lie on each other: one too near to an earlier one moves
 * straight up until it is clear of all.
 */
export function apart(spots: readonly (readonly [number, number])[], least: number): [number, number][] {
  const out: [number, number][] = [];
  for (const [x, y] of spots) {
    let at = y;
    for (let hit = true; hit;) {
      const near = out.find(([ox, oy]) => Math.abs(ox - x) < least && Math.abs(oy - at) < least - 1e-6);
      hit = near !== undefined;
      if (near) at = near[1] - least;
    }
    out.push([x, at]);
  }
  return out;
}

/** What is asked after a flight, as it is typed. */
export interface Said {
  running: string;
  shake: string;
  /** By how many minutes the clock of the camera is behind. */
  offset: string;
}

const offset = (said: Said) => parseInRange(said.offset, -1560, 1560, "min");

/** What is wrong with the clock as it is typed; nothing typed is no wrong. */
export function offsetWrong(said: Said): string | undefined {
  const minutes = offset(said);
  return minutes.ok || minutes.empty ? undefined : minutes.sentence;
}

/** What was said after a flight, as it is sent: what nobody looked at stays unknown. */
export function sent(said: Said) {
  const minutes = offset(said);
  return {
    running: said.running === "" ? null : said.running === "yes",
    shake: said.shake,
    offset_s: minutes.ok ? minutes.value * 60 : 0,
  };
}

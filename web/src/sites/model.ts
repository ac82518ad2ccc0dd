import type { Schemas } from "../api/client";

type Hour = Pick<Schemas["SkyHour"], "at" | "verdict">;

/** The spans of hours without a Stop, each from its first hour to the start of the next Stop. */
export function windows(hours: Hour[]): [string, string][] {
  const out: [string, string][] = [];
  let from: string | undefined;
  for (const h of hours) {
    if (h.verdict !== "stop") from ??= h.at;
    else if (from) {
      out.push([from, h.at]);
      from = undefined;
    }
  }
  const last = hours.at(-1);
  if (from && last) out.push([from, new Date(Date.parse(last.at) + 3_600_000).toISOString()]);
  return out;
}

/** Headings as people type them, degrees from 0 up to 360; undefined when one is none. */
export function readHeadings(t: string): number[] | undefined {
  const out = t
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  return out.every((h) => h >= 0 && h < 360) ? out : undefined;
}

/** Places as people type them, or a sentence that says which line is wrong. */
export function readPlaces(t: string): Schemas["Place"][] | string {
  const out: Schemas["Place"][] = [];
  for (const [i, line] of t.split("\n").entries()) {
    if (line.trim() === "") continue;
    const m = /^\s*([-+]?\d+(?:\.\d+)?)\s*[,;\s]\s*([-+]?\d+(?:\.\d+)?)\s*$/.exec(line);
    if (!m) return `Line ${i + 1} is no latitude and longitude: 46.31, -119.70.`;
    out.push({ lat: Number(m[1]), lon: Number(m[2]) });
  }
  return out;
}

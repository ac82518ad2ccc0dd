import { z } from "zod";
import type { Schemas } from "../api/client";
import { blank, type Feature } from "./kinds";
import { parseInRange } from "../parts/number";
import { readPlace } from "../parts/place";
import type { Wind } from "./shapes";

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
    const p = readPlace(line);
    if (!p.ok) return `Line ${i + 1}: ${p.sentence}`;
    out.push(p.place);
  }
  return out;
}

/** The form of a site's head. */
export const siteForm = z.object({
  name: z.string().trim().min(1, "Enter what the site is called.").max(120, "At most 120 characters."),
  place: z.string().transform((t, ctx) => {
    const p = readPlace(t);
    if (p.ok) return p.place;
    ctx.addIssue({
      code: "custom",
      message: t.trim() ? p.sentence : "Enter its place, or stand there and press the key.",
    });
    return z.NEVER;
  }),
  // Nobody has to know it: the terrain says it later.
  elevation: z.string().transform((t, ctx) => {
    const p = parseInRange(t, -500, 6000, "m");
    if (p.ok) return p.value;
    if (p.empty) return null;
    ctx.addIssue({ code: "custom", message: p.sentence });
    return z.NEVER;
  }),
  note: z.string().max(4000, "At most 4000 characters."),
  practice: z.boolean(),
  begin: z.boolean(),
});

/** A site has what a way home is judged by. */
export const isReady = (s: Schemas["Site"]) =>
  s.features.some((f) => f.feature.kind === "take-off") &&
  s.features.some((f) => f.feature.kind === "area" || f.feature.kind === "route");

/** What a site is asked, from its address and what is typed beside it. */
export function asksOf(params: URLSearchParams, typed: { setting: string; route: string }) {
  const metres = (t: string, min: number, max: number) => {
    const p = parseInRange(t, min, max, "m");
    return p.ok ? p.value : undefined;
  };
  const aircraft = params.get("aircraft") || undefined;
  const work = (params.get("work") ?? "spraying") as Schemas["Job"]["work"];
  return {
    way: { aircraft, setting_m: metres(typed.setting, 0, 500), route_m: metres(typed.route, 0.5, 500), work },
    sky: { aircraft, work, ground: (params.get("ground") ?? "crops") as "crops" },
  };
}

/** Wind as it was last read for a site; undefined where its direction or speed is not known. */
export function windOver(sky?: Schemas["Sky"]): Wind | undefined {
  const l = sky?.latest;
  if (l?.air.from_deg == null || l.wind_ms == null) return undefined;
  return { from: l.air.from_deg, ms: l.wind_ms, gust: l.gust_ms ?? undefined };
}

/** The elevation at which a route is flown over ground of an elevation. */
export function flownAt(w: Pick<Schemas["WayHome"], "datum" | "route_m" | "home_m">) {
  return (ground: number) => {
    if (w.datum === "ground") return ground + w.route_m;
    return w.datum === "sea" ? w.route_m : w.home_m + w.route_m;
  };
}

/** What a map may begin with: a take-off place, and a square field of 100 m round it. */
export function beginning(p: Schemas["Place"], ids: [string, string]): Feature[] {
  const [north, east] = [50 / 111_200, 50 / (111_320 * Math.cos((p.lat * Math.PI) / 180))];
  const corner = (n: number, e: number) => ({ lat: p.lat + n * north, lon: p.lon + e * east });
  return [
    { ...blank(ids[0], "take-off", "point", [p]), name: "Take-off", main: true },
    {
      ...blank(ids[1], "area", "area", [corner(-1, -1), corner(-1, 1), corner(1, 1), corner(1, -1)]),
      name: "Field",
    },
  ];
}

/** How much room is left under the cloud, in words: no cloud is said only where there is none. */
export function cloudWords(
  n: Pick<Schemas["SkyNow"], "cloud_ceiling_m"> & {
    air: Pick<Schemas["SkyNow"]["air"], "cloud_known" | "cloud_base_ft">;
  },
): string {
  if (n.cloud_ceiling_m != null) return `${Math.round(n.cloud_ceiling_m)} m above ground`;
  return n.air.cloud_known && n.air.cloud_base_ft == null ? "no cloud" : "not known";
}

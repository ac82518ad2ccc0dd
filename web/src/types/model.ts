import { get, set } from "react-hook-form";
import { z } from "zod";
import type { Schemas } from "../api/client";
import { parseInRange, parseNumber } from "../parts/number";
import type { Units } from "../parts/units";
import { allFigures, has, lives, type Figure } from "./figures";

export type Profile = Schemas["TypeProfile"];

export type Shown = Pick<Units, "value" | "toBase" | "label">;

type Texts = { [k: string]: string | Texts };

/** A type as it stands in the form: every figure as text, in the crew's units. */
export interface TypeTyped {
  key: string;
  name: string;
  work: string;
  kind: string;
  coaxial: boolean;
  tail: string;
  unfold: string;
  chemistry: string;
  percent_from: string;
  power_order: string;
  start: string;
  stop: string;
  emergency_stop: string;
  range_power: string;
  range_m: string;
  figures: Texts;
  wear: Record<string, Record<string, string>>;
  equipment: { kind: string; at: string; count: string }[];
}

const figureOf = (f: Figure, base: number, u: Shown) =>
  String(Number((f.quantity ? u.value(f.quantity, base) : base).toPrecision(6)));

/** The unit in which a figure is typed. */
export const unitOf = (f: Figure, u: Shown) => (f.quantity ? u.label(f.quantity) : f.unit);

/** A type file as text in a form. */
export function typedOf(t: Profile, u: Shown): TypeTyped {
  const figures: Texts = {};
  for (const f of allFigures) {
    const v: unknown = get(t, f.path);
    const none = v === undefined || v === null || (v === 0 && f.optional);
    set(figures, f.path, none ? "" : figureOf(f, Number(v), u));
  }
  return {
    key: t.key,
    name: t.name,
    work: t.work,
    kind: t.geometry.kind,
    coaxial: t.power?.coaxial ?? false,
    tail: t.geometry.tail ?? "",
    unfold: (t.unfold ?? []).join(", "),
    chemistry: t.packs.chemistry,
    percent_from: t.packs.percent_from,
    power_order: t.power_order ?? "",
    start: t.sticks?.start ?? "",
    stop: t.sticks?.stop ?? "",
    emergency_stop: t.sticks?.emergency_stop ?? "",
    range_power: t.range_check?.power ?? "",
    range_m: t.range_check ? String(t.range_check.distance_m) : "",
    figures,
    wear: Object.fromEntries(
      Object.entries(t.wear).map(([kind, w]) => [
        kind,
        Object.fromEntries(lives.map(({ key }) => [key, w[key] ? String(w[key]) : ""])),
      ]),
    ),
    equipment: (t.equipment ?? []).map((e) => ({ kind: e.kind, at: e.at, count: String(e.count ?? 1) })),
  };
}

const numberOf = (text: string | undefined) => {
  const p = parseNumber(text ?? "");
  return p.ok ? p.value : undefined;
};

/** A figure as typed, in its base unit; nothing where it cannot be read. One that nobody changed stays what it was, to the last digit. */
function baseOf(f: Figure, typed: TypeTyped, before: Profile, u: Shown): number | undefined {
  const text = String(get(typed.figures, f.path) ?? "");
  const was = Number(get(before, f.path) ?? 0);
  if (was && text === figureOf(f, was, u)) return was;
  const p = parseInRange(text, -1e9, 1e9, unitOf(f, u));
  if (!p.ok || (f.whole && !Number.isInteger(p.value))) return undefined;
  return f.quantity ? u.toBase(f.quantity, p.value) : p.value;
}

/** The type file that the form stands for; what the form does not show stays as it was. */
export function profileOf(f: TypeTyped, before: Profile, version: number, u: Shown): Profile {
  const out = structuredClone(before);
  out.key = f.key.trim();
  out.version = version;
  out.name = f.name.trim();
  out.work = f.work.trim();
  out.geometry = { kind: f.kind };
  for (const x of allFigures) {
    const v = has(x, f.kind) ? baseOf(x, f, before, u) : undefined;
    if (x.path.startsWith("balance.")) continue;
    set(out, x.path, v ?? (has(x, f.kind) && !x.optional ? 0 : undefined));
  }
  out.packs.max_cycles ??= 0;
  if (f.tail && f.kind !== "multirotor") out.geometry.tail = f.tail;
  const coaxial = f.kind === "multirotor" && f.coaxial;
  out.power = out.power || coaxial ? { ...out.power, coaxial: coaxial || undefined } : undefined;
  out.packs.chemistry = f.chemistry;
  out.packs.percent_from = f.percent_from;
  out.power_order = f.power_order || undefined;
  const arms = f.unfold
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  out.unfold = arms.length ? arms : undefined;
  const said = f.start || f.stop || f.emergency_stop;
  out.sticks = said
    ? { ...out.sticks, start: f.start, stop: f.stop, emergency_stop: f.emergency_stop }
    : undefined;
  const far = numberOf(f.range_m);
  out.range_check =
    far === undefined && !f.range_power ? undefined : { distance_m: far ?? 0, power: f.range_power };
  out.wear = wearOf(f.wear, before.wear);
  out.equipment = f.equipment
    .filter((e) => e.kind && e.at)
    .map((e) => ({ kind: e.kind, at: e.at, count: numberOf(e.count) ?? 1 }));
  out.balance = balanceOf(f, before, u);
  return JSON.parse(JSON.stringify(out)) as Profile;
}

function wearOf(typed: TypeTyped["wear"], before: Profile["wear"]): Profile["wear"] {
  const out: Profile["wear"] = {};
  for (const [kind, w] of Object.entries(typed)) {
    const one = { ...before[kind] };
    for (const { key } of lives) one[key] = numberOf(w[key]);
    if (Object.values(one).some(Boolean)) out[kind] = one;
  }
  return out;
}

function balanceOf(f: TypeTyped, before: Profile, u: Shown): Profile["balance"] {
  const [empty, pack] = ["balance.empty_kg", "balance.pack_kg"].map((path) =>
    baseOf(
      allFigures.find((x) => x.path === path)!,
      f,
      before,
      u,
    ),
  );
  if (empty === undefined || pack === undefined) return undefined;
  const middle = { x: 0, y: 0 };
  const was = before.balance ?? { empty: middle, packs: middle, payload: middle, tank: middle };
  return { ...was, empty_kg: empty, pack_kg: pack };
}

/** A key for a name: small letters, digits and hyphens. */
export const keyFor = (name: string) =>
  name
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 40);

/** Kinds of parts that a type may carry. */
export const equipmentKinds = [
  "arm",
  "wing",
  "speed-controller",
  "landing-gear",
  "gimbal",
  "sensor",
  "pump",
  "nozzle",
  "hose",
  "filter",
  "spreader",
  "light",
  "receiver",
];

/** What a type begins with where none is copied: nothing that only the maker can say. */
export const blank: Profile = {
  key: "",
  version: 1,
  name: "",
  work: "",
  geometry: { kind: "multirotor", rotors: 4 },
  limits: {
    takeoff_mass_kg: 0,
    wind_ms: 0,
    gust_ms: 0,
    flight_height_m: 40,
    land_by_percent: 25,
    land_by_cell_mv: 3500,
    planned_minutes: 0,
    warmth_outlier_c: 15,
  },
  packs: {
    count: 1,
    chemistry: "LiPo",
    cells: 0,
    capacity_mah: 0,
    percent_from: "volts",
    max_cycles: 0,
    call_out_every_s: 120,
  },
  wear: {},
};

/** A blank type in the form: what nobody knows yet is empty. */
export function blankTyped(u: Shown): TypeTyped {
  const out = typedOf(blank, u);
  for (const f of allFigures) if (get(blank, f.path) === 0) set(out.figures, f.path, "");
  return out;
}

const text = (most: number) => z.string().max(most, `At most ${most} characters.`);

/** The form of a type; figures are held against their bounds by the server, while it is typed. */
export const typeForm = (u: Shown) =>
  z
    .object({
      key: z.string().regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, "Small letters, digits and single hyphens."),
      name: text(60).refine((s) => s.trim(), "Enter the name of the type."),
      work: text(200),
      kind: z.string(),
      coaxial: z.boolean(),
      tail: z.string(),
      unfold: z.string().regex(/^[\d\s,;]*$/, "Numbers of arms, like 1, 4, 2, 3."),
      chemistry: z.string(),
      percent_from: z.string(),
      power_order: z.string(),
      start: text(200),
      stop: text(200),
      emergency_stop: text(200),
      range_power: text(100),
      range_m: z.string().refine((t) => !wrongNumber(t, false), "Enter a number of metres."),
      figures: z.custom<Texts>(),
      wear: z.custom<TypeTyped["wear"]>(),
      equipment: z.array(
        z.object({
          kind: z.string(),
          at: z.string(),
          count: z.string().refine((t) => t.trim() && !wrongNumber(t, true), "Enter how many."),
        }),
      ),
    })
    .superRefine((v, ctx) => {
      for (const f of allFigures.filter((x) => has(x, v.kind))) {
        const sentence = wrongFigure(f, String(get(v.figures, f.path) ?? ""), u);
        if (sentence)
          ctx.addIssue({ code: "custom", path: ["figures", ...f.path.split(".")], message: sentence });
      }
      const [empty, pack] = ["balance.empty_kg", "balance.pack_kg"].map((path) =>
        String(get(v.figures, path) ?? "").trim(),
      );
      if (!empty !== !pack)
        ctx.addIssue({
          code: "custom",
          path: ["figures", "balance", empty ? "pack_kg" : "empty_kg"],
          message: "Enter both masses, or neither.",
        });
      for (const [kind, w] of Object.entries(v.wear))
        for (const { key } of lives) {
          const message = wrongNumber(w[key] ?? "", key !== "hours");
          if (message) ctx.addIssue({ code: "custom", path: ["wear", kind, key], message });
        }
    });

/** What is wrong with a number that may stay empty; empty: nothing. */
function wrongNumber(typed: string, whole: boolean): string {
  const p = parseNumber(typed);
  if (!p.ok) return p.empty ? "" : p.sentence;
  return whole && !Number.isInteger(p.value) ? "Enter a whole number." : "";
}

/** What is wrong with a figure as typed; empty: nothing. */
export function wrongFigure(f: Figure, typed: string, u: Shown): string {
  const p = parseInRange(typed, -1e9, 1e9, unitOf(f, u));
  if (!p.ok) return p.empty ? (f.optional ? "" : "Enter what the maker says.") : p.sentence;
  return f.whole && !Number.isInteger(p.value) ? "Enter a whole number." : "";
}

/** Where the server's fault about a path of the file stands in the form. */
export function fieldOf(path: string): string {
  const own: Record<string, string> = {
    "geometry.kind": "kind",
    "geometry.tail": "tail",
    "packs.chemistry": "chemistry",
    "packs.percent_from": "percent_from",
    sticks: "start",
    "range_check.distance_m": "range_m",
    "range_check.power": "range_power",
  };
  if (own[path]) return own[path];
  return allFigures.some((f) => f.path === path) ? `figures.${path}` : path;
}

/** What is left to do about a field, in the words of the form: to enter it, or what is wrong with it. */
export function stillToDo(w: { field: string; sentence: string }, now: TypeTyped): string {
  const f = allFigures.find((x) => x.path === w.field);
  if (!f) return `${w.field}: ${w.sentence}`;
  return get(now.figures, f.path) ? `${f.label}: ${w.sentence}` : `${f.label}: enter it.`;
}

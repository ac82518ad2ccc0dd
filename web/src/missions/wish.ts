import { z } from "zod";
import { keeping, typedNumber, untouched } from "../parts/typed";
import type { Quantity, Units } from "../parts/units";
import type { Wish } from "./api";

/** A figure of a wish: what it is in the crew's units, and between what it lies, in base units. */
interface Figure {
  q?: Quantity;
  unit?: string;
  lo: number;
  hi: number;
}

export const surveyFigures = {
  width_m: { q: "length", lo: 0, hi: 2000 },
  gsd_cm: { unit: "cm", lo: 0.05, hi: 500 },
  height_m: { q: "length", lo: 2, hi: 500 },
  side: { unit: "%", lo: 0, hi: 95 },
  front: { unit: "%", lo: 0, hi: 95 },
  speed_ms: { q: "speed", lo: 0.5, hi: 60 },
  shutter: { unit: "1/s", lo: 1, hi: 20000 },
  bearing_deg: { unit: "°", lo: 0, hi: 360 },
  turn_m: { q: "length", lo: 0, hi: 500 },
  lead_m: { q: "length", lo: 0, hi: 500 },
  card_gb: { unit: "GB", lo: 0.1, hi: 10000 },
} satisfies Record<string, Figure>;

export const inspectFigures = {
  height_m: { q: "length", lo: 0.5, hi: 500 },
  from_m: { q: "length", lo: 0, hi: 500 },
  radius_m: { q: "length", lo: 0.05, hi: 500 },
  pitch_deg: { unit: "°", lo: 0, hi: 80 },
  faces_deg: { unit: "°", lo: 0, hi: 360 },
  detail_mm: { unit: "mm", lo: 0.05, hi: 500 },
  safe_m: { q: "length", lo: 1, hi: 200 },
  energised_m: { q: "length", lo: 0, hi: 200 },
  sideways: { unit: "%", lo: 0, hi: 95 },
  upwards: { unit: "%", lo: 0, hi: 95 },
  speed_ms: { q: "speed", lo: 0.2, hi: 20 },
  card_gb: { unit: "GB", lo: 0.1, hi: 10000 },
} satisfies Record<string, Figure>;

export const unitOf = (u: Units, f: Figure) => (f.q ? u.label(f.q) : (f.unit ?? ""));

/** The height of a row in the crew's table. */
export const canopyHeight = (u: Units) => figure(u, surveyFigures.height_m);

/** A figure as it is typed, in the crew's units, turned into base units. */
function figure(u: Units, f: Figure) {
  const show = (v: number) => (f.q ? +u.value(f.q, v).toFixed(3) : v);
  return typedNumber(show(f.lo), show(f.hi), unitOf(u, f), "Enter a number.").transform((v) =>
    v === null ? 0 : f.q ? u.toBase(f.q, v) : v,
  );
}

type Figures<T> = { [K in keyof T]: ReturnType<typeof figure> };

const figures = <T extends Record<string, Figure>>(u: Units, all: T) =>
  Object.fromEntries(Object.entries(all).map(([k, f]) => [k, figure(u, f)])) as Figures<T>;

/** What is typed for a survey. */
const surveyBoxes = (u: Units) =>
  z.object({
    ...figures(u, surveyFigures),
    area: z.string(),
    camera: z.string(),
    canopy: z.string(),
    by: z.enum(["resolution", "canopy", "height"]),
    direction: z.enum(["best", "along", "across-wind"]),
    relief: z.enum(["split", "follow", "level"]),
    turned: z.boolean(),
    cross: z.boolean(),
    buffer_m: typedNumber(0, u.value("length", 500), u.label("length")).transform((v) =>
      v === null ? null : u.toBase("length", v),
    ),
  });

/** What is typed for an inspection; what is looked at stands one to a line. */
const inspectBoxes = (u: Units) =>
  z
    .object({
      ...figures(u, inspectFigures),
      feature: z.string(),
      camera: z.string(),
      form: z.enum(["box", "cylinder", "roof", "poles"]),
      looks: z.string().max(20000, "That is too much."),
    })
    .transform(({ looks, ...rest }) => ({ ...rest, look: lookList(looks) }));

export type TypedSurvey = z.input<ReturnType<typeof surveyBoxes>>;
export type TypedInspect = z.input<ReturnType<typeof inspectBoxes>>;

/** A list of what to look at, "what | picture" to a line. */
export function lookList(text: string) {
  return text
    .split("\n")
    .map((l) => l.split("|"))
    .map(([what = "", picture = ""]) => ({
      what: what.trim().slice(0, 200),
      picture: picture.trim().slice(0, 200),
    }))
    .filter((l) => l.what)
    .slice(0, 200);
}

export const lookText = (all: { what: string; picture: string }[]) =>
  all.map((l) => (l.picture ? `${l.what} | ${l.picture}` : l.what)).join("\n");

const shown = (u: Units, f: Figure, v: number) =>
  String(+(f.q ? u.value(f.q, v) : v).toFixed(f.q === "speed" ? 1 : 2));

const typedOf = (u: Units, all: Record<string, Figure>, w: object) =>
  Object.fromEntries(
    Object.entries(all).map(([k, f]) => [k, shown(u, f, (w as Record<string, number>)[k] ?? 0)]),
  );

/** A survey as it stands in the boxes. */
export function typedSurvey(w: NonNullable<Wish["survey"]>, u: Units): TypedSurvey {
  return {
    ...(typedOf(u, surveyFigures, w) as Record<keyof typeof surveyFigures, string>),
    area: w.area,
    camera: w.camera,
    canopy: w.canopy,
    by: w.by,
    direction: w.direction,
    relief: w.relief,
    turned: w.turned,
    cross: w.cross,
    buffer_m: w.buffer_m == null ? "" : shown(u, { q: "length", lo: 0, hi: 0 }, w.buffer_m),
  };
}

/** An inspection as it stands in the boxes. */
export function typedInspect(w: NonNullable<Wish["inspect"]>, u: Units): TypedInspect {
  return {
    ...(typedOf(u, inspectFigures, w) as Record<keyof typeof inspectFigures, string>),
    feature: w.feature,
    camera: w.camera,
    form: w.form,
    looks: lookText(w.look),
  };
}

type Survey = NonNullable<Wish["survey"]>;
type Inspect = NonNullable<Wish["inspect"]>;

const figuresOf = <T extends object>(all: Record<string, Figure>, w: T) =>
  Object.fromEntries(Object.entries(w).filter(([k]) => k in all)) as Partial<T>;

/** What is typed for a survey; what nobody touched stays what it was. */
export function surveyForm(u: Units, was: Survey) {
  const shown = typedSurvey(was, u);
  const figures = { ...figuresOf(surveyFigures, was), buffer_m: was.buffer_m ?? null };
  return keeping(surveyBoxes(u), (typed, now) => ({ ...now, ...untouched(typed, shown, figures) }));
}

/** What is typed for an inspection; what nobody touched stays what it was. */
export function inspectForm(u: Units, was: Inspect) {
  const shown = typedInspect(was, u);
  const figures = figuresOf(inspectFigures, was);
  return keeping(inspectBoxes(u), (typed, now) => ({ ...now, ...untouched(typed, shown, figures) }));
}

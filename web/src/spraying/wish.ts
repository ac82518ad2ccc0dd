import { z } from "zod";
import { keeping, typedNumber, typedWhole, untouched } from "../parts/typed";
import type { Units } from "../parts/units";
import type { Wish } from "./api";
import { rateOf, rates, type Rates } from "./model";

const flag = z.boolean();
const text = z.string().max(80, "At most 80 characters.");

/** What is typed for a plan; numbers are texts in the crew's units. */
export type Typed = z.input<ReturnType<typeof boxes>>;

/** What is typed, held against what can be, and turned into a wish. */
function boxes(u: Units, r: Rates) {
  const num = (lo: number, hi: number, unit: string, empty = "Enter a number.") =>
    typedNumber(lo, hi, unit, empty).transform((v) => v ?? 0);
  const speed = num(u.value("speed", 0), u.value("speed", 30), u.label("speed")).transform((v) =>
    u.toBase("speed", v),
  );
  const length = (lo: number, hi: number) =>
    num(u.value("length", lo), u.value("length", hi), u.label("length")).transform((v) =>
      u.toBase("length", v),
    );
  // What a rate is in depends on what is sprayed or spread, which is known with the whole form.
  const mostRate = 1000 / Math.max(r.rate, r.spread);
  const maybe = (lo: number, hi: number, unit: string, by = 1) =>
    typedNumber(lo, hi, unit).transform((v) => (v === null ? null : v * by));
  return z
    .object({
      field: z.string(),
      edge_m: length(0, 500),
      rate: num(0, mostRate, ""),
      speed_ms: speed,
      swath_m: length(0, 60),
      flow_l_min: num(0, 500, "L/min"),
      unknown: z.enum(["flow", "rate", "speed", "swath"]),
      direction: z.enum(["best", "rows", "into-wind"]),
      bearing_deg: num(0, 360, "°"),
      height_m: length(0.5, 30),
      crop_m: length(0, 60),
      sections: typedWhole(1, 16, "Enter 1 to 16 sections."),
      edges: flag,
      whole_pass: flag,
      end_at_start: flag,
      refills: z.array(z.string()),
      nozzle: z.string(),
      nozzles: typedWhole(0, 64, "Enter how many nozzles there are."),
      granules: flag,
      number: text,
      tank_l: maybe(0, 1000, ""),
      dry_kg: maybe(u.value("mass", 0.1), u.value("mass", 1000), u.label("mass")).transform((v) =>
        v === null ? null : u.toBase("mass", v),
      ),
      kg_per_l: num(0.3, 3, "kg/L"),
      turn_s: num(0, 300, "s"),
      mix: z
        .array(
          z
            .object({
              name: z.string().trim().min(1, "Name the product.").max(80, "At most 80 characters."),
              amount: num(0, 1000, "", "Enter how much."),
              by: z.enum(["ha", "percent"]),
              unit: z.enum(["L", "kg"]),
            })
            .transform((p) => ({
              name: p.name,
              unit: p.unit,
              per_ha: p.by === "ha" ? p.amount / r.area : 0,
              percent: p.by === "percent" ? p.amount : 0,
            })),
        )
        .max(12),
      buffer_m: maybe(0, u.value("length", 2000), u.label("length")),
      most_rate: maybe(0, mostRate, ""),
      least_rate: maybe(0, mostRate, ""),
      most_c: maybe(u.value("temperature", -20), u.value("temperature", 60), u.label("temperature")),
      least_delta_t: maybe(0, 30, "°C"),
      most_delta_t: maybe(0, 30, "°C"),
      re_entry_hours: maybe(0, 2000, "h"),
    })
    .transform(
      ({
        buffer_m,
        most_rate,
        least_rate,
        most_c,
        least_delta_t,
        most_delta_t,
        re_entry_hours,
        rate,
        tank_l,
        ...w
      }): Wish => ({
        ...w,
        rate: rate * rateOf(r, w.granules).by,
        tank_l: tank_l === null ? 0 : u.toBase(w.granules ? "mass" : "volume", tank_l),
        label: {
          buffer_m: buffer_m === null ? null : u.toBase("length", buffer_m),
          most_c: most_c === null ? null : u.toBase("temperature", most_c),
          most_rate: most_rate === null ? null : most_rate * rateOf(r, w.granules).by,
          least_rate: least_rate === null ? null : least_rate * rateOf(r, w.granules).by,
          least_delta_t,
          most_delta_t,
          re_entry_hours,
        },
      }),
    );
}

/**
 * What is typed, as a wish. What nobody touched stays what it was, to the last digit: what passes lie by
 * does not change once something is sprayed.
 */
export function wishForm(u: Units, was: Wish) {
  const shown = typedWish(was, u);
  return keeping(boxes(u, rates(u)), (typed, now) => keptWish(typed, shown, now, was));
}

/** The wish that is typed, with what was for every box that still holds what it showed. */
function keptWish(typed: Typed, shown: Typed, now: Wish, was: Wish): Wish {
  const { edge_m, speed_ms, swath_m, height_m, crop_m, flow_l_min, bearing_deg, kg_per_l, turn_s } = was;
  const figures = { edge_m, speed_ms, swath_m, height_m, crop_m, flow_l_min, bearing_deg, kg_per_l, turn_s };
  const others = { dry_kg: was.dry_kg, mix: was.mix };
  // What a rate and a tank are counted in depends on what is carried.
  const carried = typed.granules === shown.granules;
  const { most_rate, least_rate, ...label } = was.label;
  return {
    ...now,
    ...untouched(typed, shown, {
      ...figures,
      ...others,
      ...(carried && { rate: was.rate, tank_l: was.tank_l }),
    }),
    label: {
      ...now.label,
      ...untouched(typed, shown, { ...label, ...(carried && { most_rate, least_rate }) }),
    },
  };
}

const say = (v: number, digits = 2) => String(+v.toFixed(digits));

/** A wish as it stands in the boxes. */
export function typedWish(w: Wish, u: Units): Typed {
  const r = rates(u);
  const per = rateOf(r, w.granules).by;
  const opt = (v: number | null | undefined, f: (x: number) => number) => (v == null ? "" : say(f(v)));
  return {
    field: w.field,
    edge_m: say(u.value("length", w.edge_m), 1),
    rate: say(w.rate / per),
    speed_ms: say(u.value("speed", w.speed_ms), 1),
    swath_m: say(u.value("length", w.swath_m), 1),
    flow_l_min: say(w.flow_l_min),
    unknown: w.unknown,
    direction: w.direction,
    bearing_deg: say(w.bearing_deg, 0),
    height_m: say(u.value("length", w.height_m), 1),
    crop_m: say(u.value("length", w.crop_m), 1),
    sections: String(w.sections),
    edges: w.edges,
    whole_pass: w.whole_pass,
    end_at_start: w.end_at_start,
    refills: w.refills ?? [],
    nozzle: w.nozzle,
    nozzles: String(w.nozzles),
    granules: w.granules,
    number: w.number,
    tank_l: w.tank_l ? say(u.value(w.granules ? "mass" : "volume", w.tank_l), 1) : "",
    dry_kg: opt(w.dry_kg, (v) => u.value("mass", v)),
    kg_per_l: say(w.kg_per_l, 3),
    turn_s: say(w.turn_s, 1),
    mix: w.mix.map((p) => ({
      name: p.name,
      unit: p.unit,
      by: p.per_ha > 0 ? ("ha" as const) : ("percent" as const),
      amount: say(p.per_ha > 0 ? p.per_ha * r.area : p.percent, 3),
    })),
    buffer_m: opt(w.label.buffer_m, (v) => u.value("length", v)),
    most_rate: opt(w.label.most_rate, (v) => v / per),
    least_rate: opt(w.label.least_rate, (v) => v / per),
    most_c: opt(w.label.most_c, (v) => u.value("temperature", v)),
    least_delta_t: opt(w.label.least_delta_t, (v) => v),
    most_delta_t: opt(w.label.most_delta_t, (v) => v),
    re_entry_hours: opt(w.label.re_entry_hours, (v) => v),
  };
}

/** What stands in the boxes when somebody else has kept another wish meanwhile: what was not touched here follows it. */
export function follow(mine: Typed, was: Typed, now: Typed): Typed {
  const touched = Object.entries(mine).filter(
    ([k, v]) => JSON.stringify(v) !== JSON.stringify(was[k as keyof Typed]),
  );
  return { ...now, ...Object.fromEntries(touched) };
}

import { z } from "zod";
import { parseInRange } from "./number";
import { instant } from "./time";
import type { Quantity, Units } from "./units";

/** A number as it is typed, with or without its unit; an empty box is nothing, or a fault with these words. */
export function typedNumber(min: number, max: number, unit: string, whenEmpty?: string) {
  return z.string().transform((text, ctx): number | null => {
    const p = parseInRange(text, min, max, unit);
    if (p.ok) return p.value;
    if (p.empty && whenEmpty === undefined) return null;
    ctx.addIssue({ code: "custom", message: p.empty ? whenEmpty! : p.sentence });
    return z.NEVER;
  });
}

/** A quantity typed in the crew's units, in base units; an empty box is nothing, or a fault with these words. */
export function typedQuantity(u: Units, what: Quantity, min: number, max: number, whenEmpty?: string) {
  return typedNumber(u.value(what, min), u.value(what, max), u.label(what), whenEmpty).transform((v) =>
    v === null ? null : u.toBase(what, v),
  );
}

/** A quantity as a box shows it, in the crew's units; what nobody knows is an empty box. */
export function shownQuantity(u: Units, what: Quantity, base: number | null | undefined, decimals: number) {
  return base == null ? "" : String(+u.value(what, base).toFixed(decimals));
}

/**
 * A schema that keeps of its values what nobody touched: a box shows rounded figures, and saving a form
 * must not change what stands in the others. See untouched.
 */
export function keeping<T extends object, W>(schema: z.ZodType<W, T>, keep: (typed: T, now: W) => W) {
  return z.custom<T>().transform((typed, ctx): W => {
    const r = schema.safeParse(typed);
    if (r.success) return keep(typed, r.data);
    for (const i of r.error.issues) ctx.addIssue({ code: "custom", path: i.path, message: i.message });
    return z.NEVER;
  });
}

/** The values, to the last digit, whose boxes still hold the text that was shown. */
export function untouched<T extends object, W extends object>(
  typed: T,
  shown: T,
  was: Partial<W>,
): Partial<W> {
  const same = (k: string) => JSON.stringify(typed[k as keyof T]) === JSON.stringify(shown[k as keyof T]);
  return Object.fromEntries(Object.entries(was).filter(([k]) => same(k))) as Partial<W>;
}

/** A whole number as it is typed; an empty box stands for whenEmpty, or is a fault. */
export function typedWhole(min: number, max: number, sentence: string, whenEmpty?: number) {
  return z.string().transform((text, ctx): number => {
    const p = parseInRange(text, min, max, "");
    if (p.ok && Number.isInteger(p.value)) return p.value;
    if (!p.ok && p.empty && whenEmpty !== undefined) return whenEmpty;
    ctx.addIssue({ code: "custom", message: sentence });
    return z.NEVER;
  });
}

/** A price as it is typed, in hundredths; an empty box is no price. */
export const typedPrice = typedNumber(0, 1_000_000, "").transform((v) =>
  v === null ? null : Math.round(v * 100),
);

/** A moment typed by the clock of a zone, as an ISO time. */
export function typedMoment(zone: string) {
  return z.string().transform((text, ctx): string => {
    const at = instant(text, zone);
    if (at) return at;
    ctx.addIssue({ code: "custom", message: "Enter date and time." });
    return z.NEVER;
  });
}

/** Several numbers at once: what is read, and what is wrong by name. */
export function readEach<K extends string>(
  texts: Partial<Record<K, string>>,
  schemas: Record<K, z.ZodType<number | null, string>>,
): { values: Record<K, number | null>; wrong: Partial<Record<K, string>> } {
  const values = {} as Record<K, number | null>;
  const wrong: Partial<Record<K, string>> = {};
  for (const k of Object.keys(schemas) as K[]) {
    const r = schemas[k].safeParse(texts[k] ?? "");
    if (r.success) values[k] = r.data;
    else wrong[k] = r.error.issues[0]?.message;
  }
  return { values, wrong };
}

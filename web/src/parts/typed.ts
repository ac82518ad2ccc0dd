import { z } from "zod";
import { parseInRange } from "./number";
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

/** A whole number as it is typed; it must be there. */
export function typedWhole(min: number, max: number, sentence: string) {
  return z.string().transform((text, ctx): number => {
    const p = parseInRange(text, min, max, "");
    if (p.ok && Number.isInteger(p.value)) return p.value;
    ctx.addIssue({ code: "custom", message: sentence });
    return z.NEVER;
  });
}

import { z } from "zod";
import { parseInRange } from "./number";

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

/** A whole number as it is typed; it must be there. */
export function typedWhole(min: number, max: number, sentence: string) {
  return z.string().transform((text, ctx): number => {
    const p = parseInRange(text, min, max, "");
    if (p.ok && Number.isInteger(p.value)) return p.value;
    ctx.addIssue({ code: "custom", message: sentence });
    return z.NEVER;
  });
}

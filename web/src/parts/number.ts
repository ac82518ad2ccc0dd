import type { Schemas } from "../api/client";

/** The outcome of reading a number as people type it. */
export type Parsed =
  { ok: true; value: number } | { ok: false; empty: true } | { ok: false; empty: false; sentence: string };

/** Reads a number with a decimal point or a decimal comma; anything else is a sentence, never a guess. */
export function parseNumber(text: string): Parsed {
  const t = text
    .trim()
    .replace(/\u2212/g, "-")
    .replace(/\s/g, "");
  if (t === "") return { ok: false, empty: true };
  if (/^[-+]?\d{1,3}([.,]\d{3}){2,}$/.test(t) || (t.includes(",") && t.includes(".")))
    return { ok: false, empty: false, sentence: "Leave out the thousands mark: 12500 or 12500.5." };
  const n = t.replace(",", ".");
  if (!/^[-+]?(\d+\.?\d*|\.\d+)$/.test(n))
    return { ok: false, empty: false, sentence: `“${text.trim()}” is not a number.` };
  return { ok: true, value: Number(n) };
}

let known: Schemas["Unit"][] = [];

/** Which units may be typed behind a number; they come with the session. */
export function rememberUnits(units: Schemas["Unit"][]): void {
  known = units;
}

/** Reads a number that may carry its unit, like 59 ft where metres are asked for. */
function parseIn(unit: string, text: string): Parsed {
  const m = /^(.*\d[.,]?)\s*([^\d\s.,][^\d]*)$/.exec(text.trim());
  if (!m) return parseNumber(text);
  const called = (u: Schemas["Unit"], name: string) =>
    [u.code, u.label].some((x) => x.toLowerCase() === name.trim().toLowerCase());
  const to = known.find((u) => called(u, unit));
  const from = known.find((u) => called(u, m[2] ?? "") && u.quantity === to?.quantity);
  const p = parseNumber(m[1] ?? "");
  if (!p.ok || m[2]?.trim() === unit) return p;
  if (!to || !from)
    return {
      ok: false,
      empty: false,
      sentence: `“${text.trim()}” is not a number${unit && ` in ${unit}`}.`,
    };
  return { ok: true, value: (p.value * from.factor + from.offset - to.offset) / to.factor };
}

/** Reads a number, with or without its unit, and holds it against a range. */
export function parseInRange(text: string, min: number, max: number, unit: string): Parsed {
  const p = parseIn(unit, text);
  if (!p.ok) return p;
  if (p.value < min || p.value > max)
    return {
      ok: false,
      empty: false,
      sentence: `Enter ${round(min)} to ${round(max)} ${unit}.`.replace(" .", "."),
    };
  return p;
}

function round(v: number): number {
  return Math.round(v * 100) / 100;
}

/** A count with its thing in the right number: 1 pack, 2 packs. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

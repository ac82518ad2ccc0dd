import { parseNumber } from "./number";

/** Reads cell voltages as typed: millivolts, or volts under 10, which are turned into millivolts. All empty is none. */
export function readCells(texts: string[]): { ok: true; mv: number[] } | { ok: false; sentence: string } {
  if (texts.every((t) => t.trim() === "")) return { ok: true, mv: [] };
  const mv: number[] = [];
  for (let i = 0; i < texts.length; i++) {
    const p = parseNumber(texts[i] ?? "");
    if (!p.ok) return { ok: false, sentence: `Cell ${i + 1}: ${p.empty ? "enter a value." : p.sentence}` };
    const v = Math.round(p.value < 10 ? p.value * 1000 : p.value);
    if (v < 500 || v > 5000)
      return { ok: false, sentence: `Cell ${i + 1} must be between 500 and 5000 mV (or 0.5 and 5 V).` };
    mv.push(v);
  }
  return { ok: true, mv };
}

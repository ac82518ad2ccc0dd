import { z } from "zod";
import type { Schemas } from "../api/client";
import { parseNumber } from "../parts/number";
import { typedNumber } from "../parts/typed";

export type Kind = Schemas["NewSprayCheck"]["kind"];

/** A guided calibration: what is done, and what is entered. */
export interface Guide {
  name: string;
  steps: string[];
  /** Numbers that are asked for: field, label, unit. */
  asks: { field: "empty" | "known" | "shown" | "factor" | "target"; label: string; unit: string }[];
  /** A row of numbers. */
  row?: { label: string; unit: string; name: string };
  /** Found in order or not. */
  look?: boolean;
}

export const guides: Record<Kind, Guide> = {
  scale: {
    name: "Tank scale",
    steps: [
      "Stand it level, out of the wind, tank empty.",
      "Set zero.",
      "Put on a known mass of 10 kg or more.",
    ],
    asks: [
      { field: "empty", label: "Shown when empty", unit: "kg" },
      { field: "known", label: "Known mass", unit: "kg" },
      { field: "shown", label: "Shown for it", unit: "kg" },
      { field: "factor", label: "Span set now", unit: "" },
    ],
  },
  pump: {
    name: "Pump factor",
    steps: ["Fill water, bleed the air.", "Run the pump into a measure, a minute or more.", "Read both."],
    asks: [
      { field: "target", label: "Caught", unit: "L" },
      { field: "shown", label: "Shown", unit: "L" },
      { field: "factor", label: "Factor set now", unit: "" },
    ],
  },
  catch: {
    name: "Catch test",
    steps: [
      "Water in the tank, air bled, pressure as planned.",
      "Catch each nozzle for a minute.",
      "Enter each.",
    ],
    asks: [{ field: "target", label: "All together should give", unit: "L/min" }],
    row: { label: "Caught in a minute", unit: "L", name: "Nozzle" },
  },
  spreader: {
    name: "Spread width",
    steps: [
      "Trays across the width, an arm apart.",
      "One pass over each side, as they overlap.",
      "Weigh each tray.",
    ],
    asks: [{ field: "target", label: "Spread width tried", unit: "m" }],
    row: { label: "In each tray", unit: "g", name: "Tray" },
  },
  bled: {
    name: "Air bled",
    steps: ["Run until every nozzle sprays without spitting."],
    asks: [],
    look: true,
  },
  "idle-zero": {
    name: "Idle reads zero",
    steps: ["Pump off, valves shut.", "Pump and flow show zero for a minute."],
    asks: [],
    look: true,
  },
  cleaned: {
    name: "Cleaned and rinsed",
    steps: [
      "Empty the tank as the label says.",
      "Rinse three times, filters and nozzles too.",
      "Wipe it down.",
    ],
    asks: [],
    look: true,
  },
};

/** Numbers of a row as typed: the filled ones, in order; a gap or a word is a sentence. */
export function readRow(texts: string[], name: string): number[] | string {
  const last = texts.reduce((n, t, i) => (t.trim() ? i : n), -1);
  const out: number[] = [];
  for (let i = 0; i <= last; i++) {
    const p = parseNumber(texts[i] ?? "");
    if (!p.ok) return `${name} ${i + 1}: ${p.empty ? "enter what was caught, 0 for nothing." : p.sentence}`;
    if (p.value < 0 || p.value > 50) return `${name} ${i + 1}: enter 0 to 50.`;
    out.push(p.value);
  }
  return out.length ? out : `Enter what each ${name.toLowerCase()} caught.`;
}

/** What is typed for a kind of calibration, and turned into what is sent. */
export function checkForm(kind: Kind, id: string) {
  const g = guides[kind];
  return z
    .object({
      numbers: z.object(
        Object.fromEntries(
          g.asks.map((a) => [
            a.field,
            typedNumber(-1000, 1e6, a.unit, `Enter it: ${a.label.toLowerCase()}.`),
          ]),
        ),
      ),
      row: z.array(z.string()).transform((texts, ctx) => {
        if (!g.row) return undefined;
        const read = readRow(texts, g.row.name);
        if (typeof read !== "string") return read;
        ctx.addIssue({ code: "custom", message: read });
        return z.NEVER;
      }),
      pulses: z.boolean(),
      note: z.string().max(400, "At most 400 characters."),
    })
    .transform((v): Schemas["NewSprayCheck"] => ({
      id,
      kind,
      ...(v.numbers as Record<string, number>),
      ...(v.row && { caught: v.row }),
      ...(kind === "pump" && { pulses_per_litre: v.pulses }),
      ...(v.note && { note: v.note }),
    }));
}

/** How far each nozzle is from the mean, percent. */
export function fromMean(caught: number[]): number[] {
  const mean = caught.reduce((s, v) => s + v, 0) / Math.max(caught.length, 1);
  return caught.map((v) => (mean ? (v / mean - 1) * 100 : 0));
}

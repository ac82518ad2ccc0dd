import { z } from "zod";
import type { Schemas } from "../api/client";
import { parseInRange } from "../parts/number";

export const chemistries: Record<Schemas["NewPacks"]["chemistry"], string> = {
  LiPo: "LiPo, 4.20 V a cell when full",
  LiHV: "LiHV, 4.35 V a cell when full",
  "Li-ion": "Li-ion, 4.20 V a cell when full",
};

/** A whole number as people type it, within bounds. */
const whole = (min: number, max: number, unit: string) =>
  z.string().transform((text, ctx) => {
    const p = parseInRange(text, min, max, unit);
    const message = !p.ok
      ? p.empty
        ? "Enter a number."
        : p.sentence
      : Number.isInteger(p.value)
        ? ""
        : "Enter a whole number.";
    if (!p.ok || message) {
      ctx.addIssue({ code: "custom", message });
      return z.NEVER;
    }
    return p.value;
  });

const kind = {
  chemistry: z.enum(["LiPo", "LiHV", "Li-ion"]),
  cells: whole(1, 24, "cells"),
  capacity_mah: whole(100, 200000, "mAh"),
  cycles: whole(0, 5000, "cycles"),
};

/** Packs as they are added: their labels, and what they are. */
export const addForm = z.object({
  labels: z.string().trim().min(1, "Enter what stands on them, like L1 to L8.").max(1000),
  serials: z.string().transform((t) =>
    t
      .split(/[\n,;]+/)
      .map((s) => s.trim())
      .filter(Boolean),
  ),
  charged: z.boolean(),
  ...kind,
});

/** A pack as it is put right. */
export const correctForm = z.object({
  label: z.string().trim().min(1, "Enter what stands on its label.").max(20, "At most 20 characters."),
  serial: z.string().trim().min(1, "Enter the maker's serial number.").max(40, "At most 40 characters."),
  ...kind,
});

export type AddTyped = z.input<typeof addForm>;
export type CorrectTyped = z.input<typeof correctForm>;

/** What a type of aircraft flies with, as text in the form. */
export function fitting(
  t: Pick<Schemas["TypeProfile"], "packs">,
): Pick<AddTyped, "chemistry" | "cells" | "capacity_mah"> {
  const known = (Object.keys(chemistries) as AddTyped["chemistry"][]).find((c) => c === t.packs.chemistry);
  return {
    chemistry: known ?? "LiPo",
    cells: String(t.packs.cells),
    capacity_mah: String(t.packs.capacity_mah),
  };
}

import { z } from "zod";
import type { Schemas } from "../api/client";
import { readCells } from "../parts/cells";
import { parseInRange } from "../parts/number";
import { typedNumber } from "../parts/typed";
import type { Units } from "../parts/units";

/** The form of a reading as it opens: nothing is known. */
export function blankReading(cells: number) {
  const each = () => Array<string>(cells).fill("");
  return {
    cell_mv: each(),
    rested_min: "",
    percent: "",
    temperature_c: "",
    mohm: each(),
    loaded: each(),
    amps: "",
    load_s: "",
    mah: "",
    way: "in" as "in" | "out",
    start_percent: "",
    end_percent: "",
  };
}

export type ReadingTyped = ReturnType<typeof blankReading>;
type Reading = Omit<Schemas["NewReading"], "id">;

const cellsOf = z.array(z.string()).transform((texts, ctx): number[] => {
  const cells = readCells(texts);
  if (cells.ok) return cells.mv;
  ctx.addIssue({ code: "custom", message: cells.sentence });
  return z.NEVER;
});

/** Resistance of each cell; all of them, or none. */
const resistances = z.array(z.string()).transform((texts, ctx): number[] | null => {
  if (texts.every((t) => t.trim() === "")) return null;
  return texts.map((t, i) => {
    const r = parseInRange(t, 0.01, 1000, "mΩ");
    if (r.ok) return r.value;
    ctx.addIssue({
      code: "custom",
      message: `Cell ${i + 1}: ${r.empty ? "enter a value." : r.sentence}`,
    });
    return 0;
  });
});

/** What is typed of a reading, held against what can be, and turned into the reading. */
export function readingForm(u: Units) {
  return z
    .object({
      cell_mv: cellsOf,
      rested_min: typedNumber(0, 100_000, "min"),
      percent: typedNumber(0, 100, "%"),
      temperature_c: typedNumber(
        u.value("temperature", -40),
        u.value("temperature", 120),
        u.label("temperature"),
      ),
      mohm: resistances,
      loaded: cellsOf,
      amps: typedNumber(0.5, 1000, "A"),
      load_s: typedNumber(1, 600, "s"),
      mah: typedNumber(0, 400_000, "mAh"),
      way: z.enum(["in", "out"]),
      start_percent: typedNumber(0, 100, "%"),
      end_percent: typedNumber(0, 100, "%"),
    })
    .transform((v, ctx): Reading => {
      const { loaded, amps, load_s, mah, way, start_percent, end_percent, mohm, temperature_c, ...rest } = v;
      const load = loaded.length > 0;
      if (load && (amps === null || load_s === null))
        ctx.addIssue({
          code: "custom",
          path: ["amps"],
          message: "Enter the load and for how long it was on.",
        });
      return {
        ...rest,
        resistance_mohm: mohm,
        under_load: load ? { cell_mv: loaded, amps: amps ?? 0, seconds: load_s ?? 0 } : null,
        mah_in: way === "in" ? mah : null,
        mah_out: way === "out" ? mah : null,
        // Levels belong to the charge between them.
        start_percent: mah === null ? null : start_percent,
        end_percent: mah === null ? null : end_percent,
        temperature_c: temperature_c === null ? null : u.toBase("temperature", temperature_c),
      };
    });
}

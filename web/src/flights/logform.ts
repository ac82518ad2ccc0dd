import { z } from "zod";
import type { Schemas } from "../api/client";
import { readCells } from "../parts/cells";
import { keeping, shownQuantity, typedNumber, typedQuantity, typedWhole, untouched } from "../parts/typed";
import type { Units } from "../parts/units";
import type { Flight } from "./model";

/** What is typed after a landing. */
export interface LogTyped {
  landings: string;
  warmth_c: string[];
  packs: { percent: string; temp: string; cells: string[] }[];
  litres: string;
  remarks: string;
  next_time: string;
  signs: Schemas["FlightSign"][];
}

/** The form as it opens: what is known is filled in. */
export function blankLog(f: Flight): LogTyped {
  return {
    landings: "1",
    warmth_c: [],
    packs: f.packs.map(() => ({ percent: "", temp: "", cells: [] })),
    litres: "",
    remarks: "",
    next_time: "",
    signs: [],
  };
}

/** What is typed, held against what can be, and turned into the log of the flight. */
export function logForm(f: Flight, u: Units) {
  const deg = u.label("temperature");
  const warm = (from: number, to: number, empty: string) =>
    typedNumber(u.value("temperature", from), u.value("temperature", to), deg, empty).transform((t) =>
      u.toBase("temperature", t ?? 0),
    );
  const motor = warm(-30, 120, "feel or measure it and enter its warmth.");
  const pack = (label: string) =>
    z.object({
      percent: typedNumber(0, 100, "%"),
      temp: warm(-40, 120, `Enter the temperature of ${label}.`),
      cells: z.array(z.string()).transform((texts, ctx): number[] | null => {
        const cells = readCells(texts.length ? texts : [""]);
        if (cells.ok) return cells.mv.length ? cells.mv : null;
        ctx.addIssue({ code: "custom", message: cells.sentence });
        return z.NEVER;
      }),
    });
  type Pack = ReturnType<typeof pack>;
  const sprays = (f.type.profile.tank_l ?? 0) > 0;
  return z
    .object({
      landings: typedWhole(1, 50, "Enter a whole number of landings, 1 to 50."),
      warmth_c: z.array(z.string()).transform((texts, ctx): number[] =>
        Array.from({ length: f.type.motors }, (_, i) => {
          const read = motor.safeParse(texts[i] ?? "");
          if (read.success) return read.data;
          ctx.addIssue({ code: "custom", message: `Motor ${i + 1}: ${read.error.issues[0]!.message}` });
          return 0;
        }),
      ),
      // One schema for each pack, so that a fault names its pack.
      packs: z.tuple(f.packs.map((p) => pack(p.label)) as [Pack]) as unknown as z.ZodArray<Pack>,
      litres: typedNumber(
        0,
        u.value("volume", 100000),
        u.label("volume"),
        sprays ? "Enter what was sprayed; 0 when nothing was." : undefined,
      ),
      remarks: z.string().max(2000, "At most 2000 characters."),
      next_time: z.string().max(1000, "At most 1000 characters."),
      signs: z.custom<Schemas["FlightSign"][]>(Array.isArray),
    })
    .superRefine((v, ctx) =>
      v.packs.forEach((p, i) => {
        if (p.percent === null && p.cells === null)
          ctx.addIssue({
            code: "custom",
            path: ["packs", i, "percent"],
            message: `Enter the level of ${f.packs[i]!.label}, or its cells.`,
          });
      }),
    )
    .transform((v): Schemas["NewLog"] => ({
      ...v,
      packs: v.packs.map((p, i) => ({
        pack_id: f.packs[i]!.id,
        percent: p.percent,
        cell_mv: p.cells,
        temperature_c: p.temp,
      })),
      litres: v.litres === null ? null : u.toBase("volume", v.litres),
    }));
}

/** Every motor that was not entered by itself, as warm as the first: felt one after the other, and alike. */
export const alikeAll = (typed: string[], n: number): string[] =>
  Array.from({ length: n }, (_, i) => typed[i]?.trim() || (typed[0] ?? ""));

/** A logged flight put right, as it is typed; litres that nobody touched stay to the last drop. */
export function correctionForm(f: Pick<Flight, "seconds" | "landings" | "litres" | "type">, u: Units) {
  const sprays = (f.type.profile.tank_l ?? 0) > 0;
  const whole = (min: number, max: number) =>
    typedWhole(min, max, `Enter a whole number from ${min} to ${max}.`);
  const shown = {
    minutes: String(Math.floor(f.seconds / 60)),
    seconds: String(f.seconds % 60),
    landings: String(f.landings),
    litres: shownQuantity(u, "volume", f.litres, 2),
    reason: "",
    pin: "",
  };
  const schema = z
    .object({
      minutes: whole(0, 1439),
      seconds: whole(0, 59),
      landings: whole(1, 50),
      litres: sprays
        ? typedQuantity(u, "volume", 0, 100_000, "Enter what was sprayed.").transform((v) => v ?? 0)
        : z.string().transform(() => 0),
      reason: z.string(),
      pin: z.string(),
    })
    .transform(({ minutes, ...v }) => ({ ...v, seconds: minutes * 60 + v.seconds }));
  return {
    shown,
    schema: keeping<typeof shown, z.output<typeof schema>>(schema, (typed, now) => ({
      ...now,
      ...untouched(typed, shown, { litres: f.litres }),
    })),
  };
}

/** The outputs of all motors in a hover, percent, or what is wrong with the first that cannot be. */
export function readOutputs(texts: string[], motors: number): { outputs: number[] } | { wrong: string } {
  const output = typedNumber(0, 100, "%", "enter its output.");
  const read = Array.from({ length: motors }, (_, i) => output.safeParse(texts[i] ?? ""));
  const bad = read.findIndex((r) => !r.success);
  if (bad >= 0) return { wrong: `Motor ${bad + 1}: ${read[bad]!.error!.issues[0]!.message}` };
  return { outputs: read.map((r) => r.data ?? 0) };
}

import { z } from "zod";
import { typedNumber } from "../parts/typed";
import type { Schemas } from "../api/client";

export type Nozzle = Schemas["NozzleKind"];

export const droplets: Nozzle["droplets"][] = [
  "very fine",
  "fine",
  "medium",
  "coarse",
  "very coarse",
  "extremely coarse",
];

/** What is typed for a kind of nozzle. */
export type TypedNozzle = z.input<ReturnType<typeof nozzleForm>>;

/** What plans name a nozzle by: its first name in small letters, figures and dashes. */
export function keyOf(name: string): string {
  const key = name
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .slice(0, 40)
    .replace(/^-+|-+$/g, "");
  return key || "nozzle";
}

const number = (lo: number, hi: number, unit: string) =>
  typedNumber(lo, hi, unit, "Enter the number of the maker's table.").transform((v) => v ?? 0);

/** What is typed, held against what can be, and turned into what is sent. */
export function nozzleForm(was: Pick<Nozzle, "id" | "key" | "version">) {
  return z
    .object({
      name: z.string().trim().min(1, "Name the nozzle.").max(60, "At most 60 characters."),
      least_l_min: number(0.01, 50, "L/min"),
      most_l_min: number(0.01, 50, "L/min"),
      least_bar: number(0.1, 50, "bar"),
      most_bar: number(0.1, 50, "bar"),
      droplets: z.enum(droplets as [Nozzle["droplets"], ...Nozzle["droplets"][]]),
      active: z.boolean(),
    })
    .superRefine((v, ctx) => {
      const under = (path: string, message: string) =>
        ctx.addIssue({ code: "custom", path: [path], message });
      if (v.most_l_min < v.least_l_min) under("most_l_min", "The most is under the least.");
      if (v.most_bar < v.least_bar) under("most_bar", "The most is under the least.");
    })
    .transform((v): Nozzle => ({ ...v, id: was.id, key: was.key || keyOf(v.name), version: was.version }));
}

/** What stands in the form: a nozzle of the list, or nothing yet. */
export function typedNozzle(n?: Nozzle): TypedNozzle {
  const text = (v?: number) => (v === undefined ? "" : String(v));
  return {
    name: n?.name ?? "",
    least_l_min: text(n?.least_l_min),
    most_l_min: text(n?.most_l_min),
    least_bar: text(n?.least_bar),
    most_bar: text(n?.most_bar),
    droplets: n?.droplets ?? "medium",
    active: n?.active ?? true,
  };
}

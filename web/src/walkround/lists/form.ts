import { z } from "zod";
import { parseNumber } from "../../parts/number";
import { marksOf, marksText, optionsOf, optionsText, whenOf, whenText, type Item } from "./model";

/** A number that may stay empty. */
const optional = z.string().refine((s) => {
  const p = parseNumber(s);
  return p.ok || p.empty;
}, "Enter a number.");

export const itemForm = z
  .object({
    id: z.string().trim().min(1, "Give it an id, like arm-latch.").max(80),
    title: z.string().trim().min(1, "Say what is looked at.").max(200),
    how: z.string().max(2000),
    why: z.string().max(2000),
    bad: z.string().max(2000),
    do: z.string().max(2000),
    station: z.string(),
    kind: z.string(),
    defect: z.enum(["watch", "stop"]),
    short: z.boolean(),
    advisory: z.boolean(),
    passing: z.boolean(),
    per_pack: z.boolean(),
    when: z.string(),
    marks: z.string(),
    options: z.string(),
    least_s: optional,
    longer_s: optional,
    longer_when: z.string(),
    expect: optional,
    rule: z.string(),
    per: z.string(),
    quantity: z.string(),
    unit: z.string(),
    step: optional,
    min: optional,
    max: optional,
    stop_below: optional,
    watch_below: optional,
    watch_above: optional,
    stop_above: optional,
  })
  .refine((f) => f.kind !== "group" || f.marks.trim(), { path: ["marks"], message: "A group has marks." })
  .refine((f) => f.kind !== "choice" || f.options.trim(), {
    path: ["options"],
    message: "A choice has answers.",
  })
  .refine((f) => bothOrNone(f), { path: ["longer_s"], message: "Say how long, and when." });

const bothOrNone = (f: { kind: string; longer_s: string; longer_when: string }) =>
  f.kind !== "timer" || (f.longer_s.trim() !== "") === (f.longer_when.trim() !== "");

export type ItemTyped = z.infer<typeof itemForm>;

const text = (v: number | undefined) => (v === undefined ? "" : String(v));

export function typedOf(it: Item): ItemTyped {
  return {
    id: it.id,
    title: it.title,
    how: it.how ?? "",
    why: it.why ?? "",
    bad: it.bad ?? "",
    do: it.do ?? "",
    station: it.station,
    kind: it.kind,
    defect: it.defect === "watch" ? "watch" : "stop",
    short: it.short ?? false,
    advisory: it.advisory ?? false,
    passing: it.passing ?? false,
    per_pack: it.per_pack ?? false,
    when: whenText(it),
    marks: marksText(it),
    options: optionsText(it),
    least_s: text(it.least_s),
    longer_s: text(it.longer?.least_s),
    longer_when: it.longer ? whenText({ ...it, when: [it.longer.when] }) : "",
    expect: text(it.expect),
    rule: it.rule ?? "",
    per: it.per ?? "",
    quantity: it.quantity ?? "",
    unit: it.unit ?? "",
    step: text(it.step),
    min: text(it.min),
    max: text(it.max),
    stop_below: text(it.band?.stop_below),
    watch_below: text(it.band?.watch_below),
    watch_above: text(it.band?.watch_above),
    stop_above: text(it.band?.stop_above),
  };
}

const number = (s: string) => {
  const p = parseNumber(s);
  return p.ok ? p.value : undefined;
};

function longerOf(f: ItemTyped): Item["longer"] {
  const s = number(f.longer_s);
  const when = whenOf(f.longer_when)[0];
  return s !== undefined && when ? { when, least_s: s } : undefined;
}

/** Kinds of which a defect says what it means. */
export const withDefect = ["look", "group", "alike", "timer", "count", "computed"];

/** The item as typed; what its kind does not have falls away, what the form does not show stays. */
export function itemOf(f: ItemTyped, before: Item): Item {
  const band = {
    stop_below: number(f.stop_below),
    watch_below: number(f.watch_below),
    watch_above: number(f.watch_above),
    stop_above: number(f.stop_above),
  };
  const numbered = ["reading", "motors", "set"].includes(f.kind) || (f.kind === "alike" && before.compare);
  const out: Item = {
    ...before,
    id: f.id.trim(),
    title: f.title.trim(),
    station: f.station,
    kind: f.kind as Item["kind"],
    how: f.how || undefined,
    why: f.why || undefined,
    bad: f.bad || undefined,
    do: f.do || undefined,
    defect: withDefect.includes(f.kind) ? f.defect : undefined,
    short: f.short || undefined,
    advisory: f.advisory || undefined,
    passing: f.passing || undefined,
    per_pack: f.per_pack || undefined,
    when: f.when.trim() ? whenOf(f.when) : undefined,
    marks: f.kind === "group" ? marksOf(f.marks, before.marks) : undefined,
    options: f.kind === "choice" ? optionsOf(f.options) : undefined,
    least_s: f.kind === "timer" ? number(f.least_s) : undefined,
    longer: f.kind === "timer" ? longerOf(f) : undefined,
    expect: f.kind === "count" ? number(f.expect) : undefined,
    rule: f.kind === "computed" ? f.rule : undefined,
    per: f.kind === "set" ? f.per : undefined,
    quantity: f.quantity || undefined,
    unit: f.unit || undefined,
    step: numbered ? number(f.step) : undefined,
    min: numbered ? number(f.min) : undefined,
    max: numbered ? number(f.max) : undefined,
    band: f.kind === "reading" ? band : undefined,
    compare: numbered && f.kind !== "reading" ? before.compare : undefined,
  };
  return JSON.parse(JSON.stringify(out)) as Item; // what is not there is not sent
}

import { readCells } from "../parts/cells";
import { parseInRange, parseNumber } from "../parts/number";
import type { Item, Value } from "./model";

/** What is typed for an item. */
export interface Typed {
  look: "" | "ok" | "defect" | "skip";
  note: string;
  photos: string[];
  number: string;
  set: string[];
  /** Marks of a group, or numbers of motors, that are not in order. */
  wrong: string[];
  choice: string;
  poll: NonNullable<Value["poll"]>;
  /** When a timer was started, by this device's clock, in ms; 0: not yet. */
  began: number;
}

export function typedFrom(v: Value | undefined): Typed {
  return {
    look: v?.skip ? "skip" : ((v?.look as Typed["look"]) ?? ""),
    note: v?.skip ?? v?.note ?? "",
    photos: v?.photos ?? [],
    number: v?.number === undefined ? "" : String(v.number),
    set: (v?.set ?? []).map(String),
    wrong: v?.wrong ?? [],
    choice: v?.choice ?? "",
    poll: v?.poll ?? [],
    began: 0,
  };
}

/** Whether one press says that all of it is in order. */
export const byOnePress = (item: Item) =>
  ["look", "group", "alike", "drill", "computed"].includes(item.kind) && !warned(item);

/** Whether what is known of an item is not in order: then it is said in words what was seen. */
export const warned = (item: Item) => item.known !== undefined && item.known.verdict !== "clear";

/** Whether somebody says by a press whether it is in order. */
export const toldByPress = (item: Item) =>
  ["look", "group", "alike", "drill", "computed", "timer"].includes(item.kind);

/** What one press says of such an item. */
export function inOrder(item: Item, t: Typed): Value | undefined {
  if (
    !byOnePress(item) ||
    t.look === "defect" ||
    t.look === "skip" ||
    t.wrong.length ||
    t.set.some((x) => x.trim())
  )
    return undefined;
  return { look: "ok", ...(t.photos.length ? { photos: t.photos } : {}) };
}

/** What is offered as it is confirmed: with what was seen, where that was said. */
export const confirmed = <O extends { value: Value }>(offer: O | undefined, note: string): O | undefined =>
  offer && note.trim() ? { ...offer, value: { ...offer.value, note } } : offer;

/** Whether nothing was typed yet, so that what is offered may stand. */
export const untouched = (t: Typed) => t.look !== "skip" && !t.number.trim() && !t.set.some((x) => x.trim());

export function unitOf(item: Item): string {
  return { degC: "°C", deg: "°", ohm: "Ω" }[item.unit ?? ""] ?? item.unit ?? "";
}

/** What was typed as a value of the item's kind; a sentence when it is not usable, nothing when it is not there yet. */
export function valueOf(item: Item, t: Typed, now = 0): { value?: Value; sentence?: string } {
  const common = { ...(t.note ? { note: t.note } : {}), ...(t.photos.length ? { photos: t.photos } : {}) };
  if (t.look === "skip")
    return t.note.trim().length > 3
      ? { value: { skip: t.note.trim() } }
      : { sentence: "Say why it is left out." };
  const there = t.set.filter((x) => x.trim()).length >= (item.count ?? 0);
  switch (item.kind) {
    case "look":
      if (warned(item) && !t.note.trim()) return { sentence: "Say in the note what you saw." };
      if (t.look === "defect" && !t.note.trim()) return { sentence: "Say in the note what the defect is." };
      return t.look || warned(item) ? { value: { look: t.look || "ok", ...common } } : {};
    case "group":
      if (warned(item) && !t.note.trim()) return { sentence: "Say in the note what you saw." };
      if (warned(item) && !t.wrong.length && t.look !== "defect") return { value: { look: "ok", ...common } };
      if (!t.wrong.length) return t.look === "defect" ? { sentence: "Press what is not in order." } : {};
      if (!t.note.trim()) return { sentence: "Say in the note what the defect is." };
      return { value: { look: "defect", wrong: t.wrong, ...common } };
    case "alike": {
      if (!t.wrong.length && !t.set.some((x) => x.trim()))
        return t.look === "defect" ? { sentence: "Press the motors that are not like the others." } : {};
      const told: Value = t.wrong.length ? { look: "defect", wrong: t.wrong } : { look: "ok" };
      if (!t.set.some((x) => x.trim())) return { value: { ...told, ...common } };
      const numbers = numbersOf(t.set, item);
      return numbers.set ? { value: { ...told, set: numbers.set, ...common } } : numbers;
    }
    case "drill":
      return t.look ? { value: { look: t.look } } : {};
    case "computed":
      if (!t.note.trim() && (t.look === "defect" || warned(item)))
        return { sentence: "Say in the note what you saw." };
      return { value: { look: t.look || "ok", ...common } };
    case "poll": {
      const asked = (item.names ?? []).every((n) => t.poll.some((v) => v.name === n));
      return asked || t.poll.some((v) => !v.go) ? { value: { poll: t.poll, ...common } } : {};
    }
    case "count": {
      const p = parseInRange(t.number, 0, 1000, "");
      if (!p.ok) return p.empty ? {} : { sentence: p.sentence };
      return Number.isInteger(p.value)
        ? { value: { number: p.value, ...common } }
        : { sentence: "Enter how many there are, as a whole number." };
    }
    case "who":
    case "choice":
      return t.choice ? { value: { choice: t.choice, ...common } } : {};
    case "photo":
      return t.photos.length ? { value: common } : {};
    case "timer": {
      if (!t.began || (!now && t.look !== "defect")) return {}; // while it runs only a defect is told
      const seconds = Math.max(0, Math.floor((now - t.began) / 1000));
      if (t.look === "defect" && !t.note.trim()) return { sentence: "Say in the note what the defect is." };
      return { value: { look: t.look === "defect" ? "defect" : "ok", seconds, ...common } };
    }
    case "reading": {
      const p = parseInRange(t.number, item.min ?? -Infinity, item.max ?? Infinity, unitOf(item));
      if (p.ok && warned(item) && !t.note.trim()) return { sentence: "Say in the note what you saw." };
      if (p.ok) return { value: { number: p.value, ...common } };
      return p.empty ? {} : { sentence: p.sentence };
    }
    case "cells": {
      if (!there) return {};
      const c = readCells(t.set);
      return c.ok ? { value: { set: c.mv, ...common } } : { sentence: c.sentence };
    }
    default: {
      if (!there) return {};
      const numbers = numbersOf(t.set, item);
      return numbers.set ? { value: { set: numbers.set, ...common } } : numbers;
    }
  }
}

/** Of what the i-th number of an item is. */
export const memberOf = (item: Item, i: number) => item.names?.[i] ?? `Motor ${i + 1}`;

/** One number for each motor, arm, nozzle or heading. */
function numbersOf(typed: string[], item: Item): { set?: number[]; sentence?: string } {
  const set: number[] = [];
  for (let i = 0; i < (item.count ?? 0); i++) {
    const p = parseNumber(typed[i] ?? "");
    if (!p.ok) return { sentence: `${memberOf(item, i)}: ${p.empty ? "enter a value." : p.sentence}` };
    set.push(p.value);
  }
  return { set };
}

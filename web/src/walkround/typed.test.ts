import { describe, expect, it } from "vitest";
import type { Item } from "./model";
import { byOnePress, confirmed, inOrder, memberOf, typedFrom, untouched, valueOf, type Typed } from "./typed";

const item = (id: string, more: Partial<Item> = {}) =>
  ({ id, station: id, title: id, kind: "look", ...more }) as Item;

describe("what was typed", () => {
  const typed = typedFrom(undefined);
  const reading = item("r", { kind: "reading", min: 0, max: 100, unit: "%" });
  const cells = item("c", { kind: "cells", count: 2 });
  const motors = item("m", { kind: "motors", count: 2, unit: "degC" });
  it.each([
    ["nothing yet", item("a"), {}, {}],
    ["in order", item("a"), { look: "ok" }, { value: { look: "ok" } }],
    [
      "a defect without words",
      item("a"),
      { look: "defect" },
      { sentence: "Say in the note what the defect is." },
    ],
    [
      "a defect of blanks",
      item("a"),
      { look: "defect", note: "  " },
      { sentence: "Say in the note what the defect is." },
    ],
    ["a defect", item("a"), { look: "defect", note: "crack" }, { value: { look: "defect", note: "crack" } }],
    ["a number with a comma", reading, { number: "88,5" }, { value: { number: 88.5 } }],
    ["a number too high", reading, { number: "101" }, { sentence: "Enter 0 to 100 %." }],
    ["cells in volts", cells, { set: ["4,195", "4195"] }, { value: { set: [4195, 4195] } }],
    ["a cell missing", cells, { set: ["4,195", ""] }, {}],
    ["a cell that is none", cells, { set: ["4195", "x"] }, { sentence: "Cell 2: “x” is not a number." }],
    ["motors", motors, { set: ["19", "20.5"] }, { value: { set: [19, 20.5] } }],
    [
      "a motor that is none",
      motors,
      { set: ["19", "warm"] },
      { sentence: "Motor 2: “warm” is not a number." },
    ],
  ] as const)("%s", (_, it, t, want) => expect(valueOf(it, { ...typed, ...(t as object) })).toEqual(want));
});

const blank = typedFrom(undefined);
const corner = item("corner", {
  kind: "group",
  marks: [
    { id: "arm-1", station: "arm-1", title: "Arm" },
    { id: "motor-1", station: "motor-1", title: "Motor" },
  ],
});
const warm = item("warm", { kind: "alike", count: 4, quantity: "warmth", unit: "degC" });

describe("what one press says", () => {
  it("is that all of it is in order, while nothing is marked or typed", () => {
    expect(inOrder(corner, blank)).toEqual({ look: "ok" });
    expect(inOrder(warm, blank)).toEqual({ look: "ok" });
    expect(inOrder(corner, { ...blank, wrong: ["arm-1"] })).toBeUndefined();
    expect(inOrder(warm, { ...blank, set: ["", "31"] })).toBeUndefined();
    expect(inOrder(item("x"), { ...blank, look: "defect" })).toBeUndefined();
  });
  it.each(["reading", "cells", "choice", "timer", "photo", "motors"] as const)(
    "is nothing of a %s",
    (kind) => {
      expect(byOnePress(item("x", { kind }))).toBe(false);
      expect(inOrder(item("x", { kind }), blank)).toBeUndefined();
    },
  );
});

describe("what is said of several things", () => {
  it("names the marks, with words", () => {
    expect(valueOf(corner, { ...blank, wrong: ["motor-1"] }).sentence).toContain("note");
    expect(valueOf(corner, { ...blank, wrong: ["motor-1"], note: "grinds" }).value).toEqual({
      look: "defect",
      wrong: ["motor-1"],
      note: "grinds",
    });
    expect(valueOf(corner, blank)).toEqual({});
  });
  it("takes motors by hand, by number, or both", () => {
    expect(valueOf(warm, { ...blank, wrong: ["3"] }).value).toEqual({ look: "defect", wrong: ["3"] });
    expect(valueOf(warm, { ...blank, set: ["30", "31", "30", "30,5"] }).value).toEqual({
      look: "ok",
      set: [30, 31, 30, 30.5],
    });
    expect(valueOf(warm, { ...blank, set: ["30", "x"] }).sentence).toContain("Motor 2");
    expect(valueOf(warm, { ...blank, set: ["30"] }).sentence).toContain("Motor 2");
  });
  it("takes a choice, a photo, and a time that has run", () => {
    expect(valueOf(item("c", { kind: "choice" }), { ...blank, choice: "no" }).value).toEqual({
      choice: "no",
    });
    expect(valueOf(item("c", { kind: "choice" }), blank)).toEqual({});
    expect(valueOf(item("p", { kind: "photo" }), blank)).toEqual({});
    expect(valueOf(item("p", { kind: "photo" }), { ...blank, photos: ["a"] }).value).toEqual({
      photos: ["a"],
    });
    const timer = item("t", { kind: "timer", least_s: 60 });
    expect(valueOf(timer, blank, 5000)).toEqual({});
    expect(valueOf(timer, { ...blank, began: 1000 }, 62_900).value).toEqual({ look: "ok", seconds: 61 });
    expect(valueOf(timer, { ...blank, began: 1000 })).toEqual({});
  });
  it("is what was entered when it is opened again", () => {
    const v = { look: "defect", wrong: ["arm-1"], note: "play" };
    expect(valueOf(corner, typedFrom(v)).value).toEqual(v);
  });
});

describe("what is offered", () => {
  it("stands until something is typed", () => {
    expect(untouched(blank)).toBe(true);
    expect(untouched({ ...blank, set: ["", " "] })).toBe(true);
    expect(untouched({ ...blank, number: "7" })).toBe(false);
    expect(untouched({ ...blank, set: ["", "4195"] })).toBe(false);
  });
});

describe("what is counted, worked out, named and asked", () => {
  const ask = (kind: Item["kind"], more: Partial<Item> = {}) =>
    ({ id: "x", station: "frame", title: "X", kind, ...more }) as Item;
  const typed = (more: Partial<Typed>): Typed => ({ ...typedFrom(undefined), ...more });
  const of = (it: Item, more: Partial<Typed>) => valueOf(it, typed(more));

  it("a count is a whole number", () => {
    const caps = ask("count", { expect: 6 });
    expect(of(caps, { number: "6" })).toEqual({ value: { number: 6 } });
    expect(of(caps, { number: "5,5" }).sentence).toMatch("whole number");
    expect(of(caps, { number: "-1" }).sentence).toBeTruthy();
    expect(of(caps, {})).toEqual({});
  });

  it("what is worked out and in order is one press; what is not is answered in words", () => {
    const known = (verdict: "clear" | "watch" | "stop") =>
      ask("computed", { rule: "mass", known: { verdict, words: "w", source: "s" } });
    expect(byOnePress(known("clear"))).toBe(true);
    expect(byOnePress(known("watch"))).toBe(false);
    expect(byOnePress(ask("computed", { rule: "mass" }))).toBe(true);
    expect(of(known("stop"), {}).sentence).toMatch("what you saw");
    expect(of(known("stop"), { note: "read" })).toEqual({ value: { look: "ok", note: "read" } });
    expect(of(known("clear"), { look: "defect" }).sentence).toMatch("what you saw");
    expect(inOrder(known("clear"), typed({}))).toEqual({ look: "ok" });
    expect(inOrder(known("watch"), typed({}))).toBeUndefined();
  });

  it("a warning of the aircraft is not pressed away unread, on a look or a group", () => {
    for (const kind of ["look", "group"] as const) {
      const warns = ask(kind, {
        tells: ["warnings"],
        known: { verdict: "watch", words: "It warns.", source: "s" },
        marks: [{ id: "m", station: "frame", title: "M" }],
      });
      expect(inOrder(warns, typed({}))).toBeUndefined();
      expect(of(warns, {}).sentence).toMatch("what you saw");
      expect(of(warns, { note: "a car" })).toEqual({ value: { look: "ok", note: "a car" } });
    }
  });

  it("a round of go is whole, or has one no", () => {
    const poll = ask("poll", { names: ["A", "B"] });
    const vote = (name: string, go: boolean) => ({ name, go });
    expect(of(poll, {})).toEqual({});
    expect(of(poll, { poll: [vote("A", true)] })).toEqual({});
    expect(of(poll, { poll: [vote("A", true), vote("B", true)] }).value?.poll).toHaveLength(2);
    expect(of(poll, { poll: [vote("B", false)] }).value?.poll).toEqual([vote("B", false)]);
  });

  it("one person is named", () => {
    expect(of(ask("who", { names: ["A"] }), { choice: "A" })).toEqual({ value: { choice: "A" } });
    expect(of(ask("who", { names: ["A"] }), {})).toEqual({});
  });

  it("left out needs a reason, and takes nothing else along", () => {
    const strap = ask("look", { defect: "watch" });
    expect(of(strap, { look: "skip", note: " x " }).sentence).toMatch("Say why");
    expect(of(strap, { look: "skip", note: " no strap " })).toEqual({ value: { skip: "no strap" } });
    expect(inOrder(strap, typed({ look: "skip" }))).toBeUndefined();
    expect(untouched(typed({ look: "skip" }))).toBe(false);
    expect(typedFrom({ skip: "no strap" })).toMatchObject({ look: "skip", note: "no strap" });
  });

  it("a number of a set is named by what it is of", () => {
    const set = ask("set", { per: "heading", count: 2, names: ["North", "East"], unit: "deg" });
    expect(of(set, { set: ["1", "x"] }).sentence).toMatch(/^East: /);
    expect(of(set, { set: ["1", "91"] })).toEqual({ value: { set: [1, 91] } });
    expect(memberOf(ask("motors"), 2)).toBe("Motor 3");
  });

  it("a picture is answered one way or the other", () => {
    expect(of(ask("drill"), { look: "defect" })).toEqual({ value: { look: "defect" } });
    expect(inOrder(ask("drill"), typed({}))).toEqual({ look: "ok" });
  });

  it("what is offered is confirmed with what was seen", () => {
    const offer = { value: { number: 40, from: "r" }, words: "40 %" };
    expect(confirmed(offer, " ")).toBe(offer);
    expect(confirmed(offer, "warm")?.value).toEqual({ number: 40, from: "r", note: "warm" });
    expect(confirmed(undefined, "warm")).toBeUndefined();
  });
});

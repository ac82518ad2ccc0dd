import { describe, expect, it } from "vitest";
import type { Item } from "./model";
import { byOnePress, inOrder, typedFrom, untouched, valueOf } from "./typed";

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

import { expect, it } from "vitest";
import { itemForm, itemOf, typedOf } from "./form";
import { blank, type Item } from "./model";

const items: Item[] = [
  {
    ...blank,
    id: "a",
    title: "A",
    how: "Look.",
    why: "It matters.",
    short: true,
    when: [{ fact: "night", is: ["yes"] }],
  },
  {
    id: "r",
    station: "bay",
    title: "R",
    how: "x",
    why: "y",
    kind: "reading",
    quantity: "level",
    unit: "%",
    step: 1,
    min: 0,
    max: 100,
    band: { stop_below: 95 },
  },
  {
    id: "g",
    station: "frame",
    title: "G",
    how: "x",
    why: "y",
    kind: "group",
    defect: "watch",
    marks: [{ id: "m", station: "bay", title: "M", bad: "Bad." }],
  },
  {
    id: "t",
    station: "frame",
    title: "T",
    how: "x",
    why: "y",
    kind: "timer",
    defect: "stop",
    least_s: 60,
    longer: { when: { fact: "wind", over: 5 }, least_s: 120 },
  },
  {
    id: "c",
    station: "frame",
    title: "C",
    how: "x",
    why: "y",
    kind: "count",
    defect: "watch",
    expect: 8,
    passing: true,
  },
  {
    id: "k",
    station: "frame",
    title: "K",
    how: "x",
    why: "y",
    kind: "computed",
    defect: "stop",
    rule: "mass",
  },
  {
    id: "s",
    station: "frame",
    title: "S",
    how: "x",
    why: "y",
    kind: "set",
    per: "heading",
    quantity: "heading",
    unit: "deg",
    step: 1,
    min: 0,
    max: 360,
    compare: { how: "heading", watch: 7, stop: 10 },
  },
];

it.each(items.map((x) => [x.id, x] as const))("item %s comes out of the form as it went in", (_, item) => {
  const typed = typedOf(item);
  expect(itemForm.safeParse(typed).success).toBe(true);
  const out = itemOf(typed, item);
  expect(out).toEqual({ ...item, ...(item.how ? {} : { how: undefined }) });
});

it("another kind leaves away what it does not have", () => {
  const out = itemOf({ ...typedOf(items[2]!), kind: "look" }, items[2]!);
  expect(out.marks).toBeUndefined();
  expect(out.defect).toBe("watch");
});

it("says what is missing", () => {
  const wrong = (part: object) =>
    itemForm.safeParse({ ...typedOf(blank), id: "a", title: "A", ...part }).error?.issues[0]?.message;
  expect(wrong({ id: " " })).toMatch("Give it an id");
  expect(wrong({ title: "" })).toMatch("Say what");
  expect(wrong({ kind: "group" })).toBe("A group has marks.");
  expect(wrong({ kind: "choice" })).toBe("A choice has answers.");
  expect(wrong({ min: "ten" })).toBe("Enter a number.");
  expect(wrong({})).toBeUndefined();
});

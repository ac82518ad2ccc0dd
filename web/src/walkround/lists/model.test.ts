import { describe, expect, it } from "vitest";
import {
  blank,
  changes,
  marksOf,
  marksText,
  moved,
  nextVersion,
  optionsOf,
  optionsText,
  whenOf,
  whenText,
  withItem,
  withoutItem,
  type Item,
  type List,
} from "./model";

const item = (id: string, more: Partial<Item> = {}): Item => ({ ...blank, id, title: id, ...more });
const list: List = {
  type: "q",
  version: 3,
  sections: [
    { title: "A", items: [item("a"), item("b")] },
    { title: "B", items: [item("c")] },
  ],
};
const ids = (l: List) => l.sections.map((s) => s.items.map((i) => i.id).join(""));

describe("a list that is edited", () => {
  it("takes an item in its place or behind the last", () => {
    expect(ids(withItem(list, { section: 0, item: 1 }, item("x")))).toEqual(["ax", "c"]);
    expect(ids(withItem(list, { section: 1, item: 1 }, item("x")))).toEqual(["ab", "cx"]);
    expect(ids(list)).toEqual(["ab", "c"]);
  });
  it("loses one", () => expect(ids(withoutItem(list, { section: 0, item: 0 }))).toEqual(["b", "c"]));
  it("moves one, also into the section beside, and never out of the list", () => {
    expect(ids(moved(list, { section: 0, item: 0 }, 1))).toEqual(["ba", "c"]);
    expect(ids(moved(list, { section: 0, item: 1 }, 1))).toEqual(["a", "bc"]);
    expect(ids(moved(list, { section: 1, item: 0 }, -1))).toEqual(["abc", ""]);
    expect(ids(moved(list, { section: 0, item: 0 }, -1))).toEqual(["ab", "c"]);
    expect(ids(moved(list, { section: 1, item: 0 }, 1))).toEqual(["ab", "c"]);
  });
  it("is handed in as the version after the newest", () => expect(nextVersion(list, 7).version).toBe(8));
});

describe("two versions", () => {
  it("say what was added, changed, moved and removed", () => {
    const newer: List = {
      ...list,
      sections: [
        { title: "A", items: [item("a", { title: "A new title", short: true })] },
        { title: "B", items: [item("c"), item("b"), item("d")] },
      ],
    };
    expect(changes(list, newer).map((c) => `${c.what} ${c.id} ${c.fields.join()}`)).toEqual([
      "changed a title,short",
      "moved b ",
      "added d ",
    ]);
    expect(changes(newer, list).at(-1)).toMatchObject({ what: "removed", id: "d" });
    expect(changes(list, list)).toEqual([]);
  });
});

describe("what is written in lines", () => {
  it("comes back as it was", () => {
    const marks = [
      { id: "m1", station: "arm-1", title: "Arm 1", bad: "It moves." },
      { id: "m2", station: "bay", title: "Bay" },
    ];
    expect(marksOf(marksText(item("g", { marks })))).toEqual(marks);
    const options = [
      { key: "y", verdict: "clear" as const, title: "Even" },
      { key: "n", verdict: "stop" as const, title: "A whistle", do: "Land." },
    ];
    expect(optionsOf(optionsText(item("c", { options })))).toEqual(options);
    const when = [
      { fact: "night", is: ["yes"] },
      { fact: "days-since-flight", over: 30 },
    ];
    expect(whenOf(whenText(item("w", { when })))).toEqual(when);
  });
  it("keeps what a line of a mark does not show", () => {
    const before = [{ id: "m1", station: "bay", title: "Bay", defect: "watch" as const }];
    expect(marksOf("m1 | bay | The bay", before)).toEqual([
      { id: "m1", station: "bay", title: "The bay", defect: "watch" },
    ]);
  });
  it("takes a verdict that is none for the worst, and leaves empty lines away", () => {
    expect(optionsOf("y | good | Even\n\n")).toEqual([{ key: "y", verdict: "stop", title: "Even" }]);
    expect(whenOf("\n night=yes , no ")).toEqual([{ fact: "night", is: ["yes", "no"] }]);
  });
});

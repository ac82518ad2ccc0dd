import { expect, it } from "vitest";
import { byNumber, byText, inOrder, reading, withWords, type ListOrder } from "./lists";

const things = ["Motor 1, Dray One", "Motor 2, Dray One", "Propeller 1, Tally W"];
const find = (words: string) => withWords(things, words, (t) => t);

it("finds all words in any order and case, and everything without words", () => {
  expect(find("dray MOTOR")).toEqual(things.slice(0, 2));
  expect(find("  ")).toEqual(things);
  expect(find("motor tally")).toEqual([]);
  expect(find("1 w")).toEqual(["Propeller 1, Tally W"]);
});

it("stands in the order that is chosen, unknown last, and as it came without one", () => {
  const lines = [
    { name: "Motor 10", left: 3 },
    { name: "Motor 2", left: null },
    { name: "Arm 1", left: 1 },
    { name: "Arm 1", left: 0 },
  ];
  const orders: ListOrder<(typeof lines)[number]>[] = [
    { key: "", name: "as it came" },
    { key: "name", name: "by name", compare: byText((l) => l.name) },
    { key: "left", name: "by what is left", compare: byNumber((l) => l.left) },
  ];
  expect(inOrder(lines, orders, "")).toEqual(lines);
  expect(inOrder(lines, orders, "nonsense")).toEqual(lines);
  expect(inOrder(lines, orders, "name").map((l) => l.left)).toEqual([1, 0, null, 3]);
  expect(inOrder(lines, orders, "left").map((l) => l.left)).toEqual([0, 1, 3, null]);
  expect(lines[0]!.left).toBe(3); // what came is not moved
});

it("reads a list in pages to its end, and does not go on by itself after a failure", () => {
  const pages = { hasNextPage: true, isFetchingNextPage: false, isFetchNextPageError: false };
  expect(reading()).toBe("done");
  expect(reading({ ...pages, hasNextPage: false })).toBe("done");
  expect(reading(pages)).toBe("to go on");
  expect(reading({ ...pages, isFetchingNextPage: true })).toBe("under way");
  expect(reading({ ...pages, isFetchNextPageError: true })).toBe("stuck");
});

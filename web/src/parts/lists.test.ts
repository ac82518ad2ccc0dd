import { expect, it } from "vitest";
import { withWords } from "./lists";

const things = ["Motor 1, Dray One", "Motor 2, Dray One", "Propeller 1, Tally W"];
const find = (words: string) => withWords(things, words, (t) => t);

it("finds all words in any order and case, and everything without words", () => {
  expect(find("dray MOTOR")).toEqual(things.slice(0, 2));
  expect(find("  ")).toEqual(things);
  expect(find("motor tally")).toEqual([]);
  expect(find("1 w")).toEqual(["Propeller 1, Tally W"]);
});

import { expect, it } from "vitest";
import { choices, metric, presetOf, us } from "./units";

it("knows the usual sets, and a mixed one", () => {
  expect([presetOf(metric), presetOf(us), presetOf({ ...metric, speed: "kt" })]).toEqual([
    "metric",
    "us",
    "own",
  ]);
});

it("offers every unit of the sets", () => {
  for (const set of [metric, us])
    for (const c of choices) expect(c.options.map(([v]) => v)).toContain(set[c.name]);
});

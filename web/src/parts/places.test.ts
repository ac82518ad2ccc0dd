import { expect, it } from "vitest";
import { isUnder, places } from "./places";

it("marks the one view that an address belongs to", () => {
  const here = (pathname: string) => places.filter((p) => isUnder(pathname, p.path)).map((p) => p.name);
  expect(here("/")).toEqual(["Day"]);
  expect(here("/jobs")).toEqual(["Jobs"]);
  expect(here("/jobs/1/spray/2")).toEqual(["Jobs"]);
  expect(here("/log/records")).toEqual(["Log"]);
  expect(here("/logbook")).toEqual([]);
  expect(here("/walk/1")).toEqual([]);
});

it("has one key for each view", () => {
  expect(new Set(places.map((p) => p.key)).size).toBe(places.length);
});

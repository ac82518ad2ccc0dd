import { expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { callOutWords, learnedPoints, leftOut } from "./model";

const row = (distance_m: number, percent: number, cannot?: string) => ({
  distance_m,
  percent,
  wh: 1,
  seconds: 1,
  cannot,
});

it("says each level, or why there is none", () => {
  const table = [
    row(100, 30.2),
    row(200, 34),
    row(300, 120),
    row(400, 40, "the wind is stronger than it flies"),
  ];
  expect(table.map(callOutWords)).toEqual(["31 %", "34 %", "more than they hold", "no way home"]);
});

const flight = (measured_wh: number | null, predicted_wh: number | null, left = "") =>
  ({ id: "x", at: "", measured_wh, predicted_wh, mass_kg: null, left }) as Schemas["LearnedFlight"];

it("plots what was measured over what was predicted, and counts what is left out", () => {
  const all = [
    flight(110, 100),
    flight(null, 100, "no measured use"),
    flight(300, 100, "does not fit the others"),
    flight(1, 0),
  ];
  expect(learnedPoints(all)).toEqual([
    { share: 1.1, counts: true, why: "" },
    { share: 3, counts: false, why: "does not fit the others" },
  ]);
  expect(leftOut([...all, flight(null, null, "no measured use")])).toEqual([
    ["no measured use", 2],
    ["does not fit the others", 1],
  ]);
});

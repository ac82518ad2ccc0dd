import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { dayForm, fromPlan, hm, rows, usualDay } from "./model";

it("turns what is typed into a day in seconds", () => {
  const d = dayForm.parse({ ...usualDay, flights: "2", minutes: "9,5" });
  expect(d.sorties).toEqual([
    { seconds: 570, wh: 1300, done: 1.2, fill: true },
    { seconds: 570, wh: 1300, done: 1.2, fill: true },
  ]);
  expect([d.cool_s, d.swap_s, d.fill_s, d.day_s]).toEqual([720, 120, 150, 28800]);
  expect(
    dayForm.safeParse({ ...usualDay, sets: "0", hands: "", wh: "x" }).error?.issues.map((i) => i.path[0]),
  ).toEqual(["wh", "sets", "hands"]);
});

it("takes the flights of a plan", () => {
  const d = dayForm.parse(usualDay);
  const plan = { sorties: [{ seconds: 400, wh: 900, ha: 1.1 }] } as Schemas["SprayPlan"];
  expect(fromPlan(plan, d).sorties).toEqual([{ seconds: 400, wh: 900, done: 1.1, fill: true }]);
  expect(fromPlan({ sorties: [] }, d)).toBe(d);
});

it("lays the day out, aircraft before sets, in the order of time", () => {
  const s = (of: "aircraft" | "set", number: number, from_s: number) =>
    ({ of, number, doing: "fly", from_s, to_s: from_s + 1, sortie: 1 }) as Schemas["RotationStretch"];
  const r = rows({
    line: [s("set", 1, 5), s("aircraft", 2, 0), s("aircraft", 1, 9), s("aircraft", 1, 3)],
  } as Schemas["RotationRun"]);
  expect(r.map((x) => [x.name, x.line.map((l) => l.from_s)])).toEqual([
    ["Aircraft 1", [3, 9]],
    ["Aircraft 2", [0]],
    ["Set 1", [5]],
  ]);
  expect(hm(3660)).toBe("1:01");
});

import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import type { Press } from "../outbox/model";
import { doneBefore, gearForm, levelForm, withTicks } from "./model";

type Evening = Schemas["Evening"];
const at = "2026-06-10T19:00:00.000Z";
const evening = (ticks: Evening["ticks"] = []) =>
  ({
    day: "2026-06-11",
    ticks,
    plan: { charge: [{ pack_id: "p1" }], lower: [{ pack_id: "p2" }], ready: [] },
  }) as unknown as Evening;
const tick = (item: string, label = "D1"): Evening["ticks"][0] => ({ item, label, by: "Odile", at });
const press = (item: string, done: boolean): Press => ({
  id: item,
  person: "imre",
  personName: "Imre",
  kind: "evening.tick",
  thing: "evening/2026-06-11",
  at: 0,
  order: 1,
  body: { day: "2026-06-11", item, done, label: "" },
});

describe("an evening with what was ticked here", () => {
  it("has the tick, with who made it", () => {
    expect(withTicks(evening(), [press("charge:p1", true)], () => at).ticks).toEqual([
      { item: "charge:p1", label: "", by: "Imre", at },
    ]);
  });
  it("keeps the name of who ticked it first, and takes it back", () => {
    const known = evening([tick("charge:p1")]);
    expect(withTicks(known, [press("charge:p1", true)], () => at).ticks).toEqual([tick("charge:p1")]);
    expect(withTicks(known, [press("charge:p1", false)], () => at).ticks).toEqual([]);
    expect(
      withTicks(known, [press("charge:p1", false), press("charge:p1", true)], () => at).ticks[0]?.by,
    ).toBe("Imre");
  });
});

it("lists what was done and stands on no list any more", () => {
  const e = evening([
    tick("charge:p1"),
    tick("charged:p3", "D3"),
    tick("lower:p4", "D4"),
    tick("lower:p2"),
    tick("ready:p5", "D5"),
    tick("gear:g1", ""),
  ]);
  expect(doneBefore(e).map((d) => d.words)).toEqual(["D3 charged", "D4 brought down"]);
});

describe("gear as it is typed", () => {
  const gear = { name: "Tablet 2", kind: "tablet" as const, minimum: "80", active: true, aircraft: "" };
  it("leaves the base with 1 to 100 %", () => {
    for (const minimum of ["1", "100"]) expect(gearForm.parse({ ...gear, minimum }).minimum).toBe(+minimum);
    for (const minimum of ["0", "101", "", "full"])
      expect(gearForm.safeParse({ ...gear, minimum }).success, minimum).toBe(false);
  });
  it("shows a level of 0 to 100 %, and an empty box is no level", () => {
    expect(levelForm.parse({ level: "0" }).level).toBe(0);
    for (const level of ["", "-1", "100.1"])
      expect(levelForm.safeParse({ level }).success, level).toBe(false);
  });
});

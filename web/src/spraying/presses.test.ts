import { expect, it } from "vitest";
import type { Press } from "../outbox/model";
import type { Plan } from "./api";
import { isDone } from "./model";
import { massFault, pressed, withPresses, type SprayPresses } from "./presses";

const spot = { lat: 46, lon: 7 };
const leg = (pass: number) => ({ pass, from: spot, to: spot, from_share: 0, to_share: 1, back: false });
const sortie = (legs: number[], litres: number) =>
  ({ legs: legs.map(leg), ha: 1, litres }) as Plan["sorties"][number];

const plan = {
  passes: [0, 1, 2].map(() => ({ area_m2: 5000 })),
  settings: { rate: 20 },
  wish: { mix: [{ name: "Sulphur", unit: "kg" }], granules: false },
  sorties: [sortie([0, 1], 20), sortie([2], 10)],
  loads: [
    { litres: 20, ha: 1, amounts: [3], water: 20 },
    { litres: 10, ha: 0.5, amounts: [1.5], water: 10 },
  ],
  fills: [],
  done: [],
  done_ha: 0,
} as unknown as Plan;

const at = "2026-06-10T10:00:00Z";
const about = { job: "j", aircraft: "a" };
const of = { ...about, version: 3 };

function press<K extends keyof SprayPresses>(kind: K, body: SprayPresses[K]): Press {
  return {
    id: "p",
    person: "1",
    personName: "Odile Varga",
    kind,
    thing: "",
    at: 0,
    order: 0,
    body,
  };
}

const parts = (...passes: number[]) =>
  passes.map((pass) => ({ id: `part ${pass}`, pass, from_share: 0, to_share: 1 }));

it("shows what is sprayed at once, and what goes into the next load", () => {
  const p = pressed(plan, press("spray.done", { ...of, parts: parts(0, 1) }), at);
  expect(isDone(p, 0)).toBe(true);
  expect(p.done_ha).toBeCloseTo(1);
  expect(p.done[0]).toMatchObject({ litres: 10, by: "Odile Varga", at });
  expect(p.sorties).toHaveLength(1);
  expect(p.loads[0]!.litres).toBe(10);
});

it("keeps the rest of a flight that was broken off", () => {
  const p = pressed(plan, press("spray.done", { ...of, parts: parts(0) }), at);
  expect(p.sorties[0]!.legs.map((l) => l.pass)).toEqual([1]);
  expect(p.loads).toHaveLength(2);
});

it("counts a press that the server has taken already once", () => {
  const once = press("spray.done", { ...of, parts: parts(0, 1) });
  const p = pressed(plan, once, at);
  expect(pressed(p, once, at)).toBe(p);
});

it("takes back what was sprayed", () => {
  const p = pressed(plan, press("spray.done", { ...of, parts: parts(0) }), at);
  expect(pressed(p, press("spray.back", { ...about, ids: ["part 0"] }), at).done).toEqual([]);
});

it("ticks the lines of a load before the server knows it, and back", () => {
  const tick = (line: number, went: boolean) =>
    press("spray.tick", { ...about, fill: "f", number: 1, line, in: went, what: "", amount: 0 });
  const p = withPresses(plan, [tick(0, true), tick(1, true), tick(0, false)], () => at);
  expect(p.fills).toHaveLength(1);
  expect(p.fills[0]!.lines.map((l) => l.first)).toEqual(["", "Odile Varga", ""]);
  expect(p.fills[0]!.complete).toBe(false);
});

it("completes a load that is in, seen and weighed", () => {
  const seen = {
    ...plan,
    fills: [
      {
        number: 1,
        mass_kg: null,
        lines: [{ what: "Water", amount: 20, unit: "L", first: "Odile Varga", second: "Tamsin Okoro" }],
      },
    ],
  } as unknown as Plan;
  const p = pressed(seen, press("spray.mass", { ...about, fill: "f", number: 1, mass_kg: 60 }), at);
  expect(p.fills[0]).toMatchObject({ mass_kg: 60, complete: true });
});

it("says before it is kept that a mass cannot be", () => {
  expect(massFault(61.5, 60, String)).toBeUndefined();
  expect(massFault(61.6, 60, String)).toContain("should be 60");
  expect(massFault(58.4, 60, String)).toContain("should be 60");
});

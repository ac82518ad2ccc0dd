import { expect, it } from "vitest";
import type { Units } from "../parts/units";
import type { Plan } from "./api";
import { fromMean, readRow, checkForm } from "./checks";
import { box, plane, scaleLength } from "../drawings/plane";
import {
  isDone,
  minutes,
  nextFill,
  partsOf,
  partsUpTo,
  rateOf,
  reachOf,
  recordLines,
  rates,
  sheetOf,
  sprayedOf,
  totals,
} from "./model";
import { follow, typedWish, wishForm } from "./wish";

const units = (us: boolean): Units => ({
  show: () => "",
  value: (q, v) =>
    !us
      ? v
      : q === "length"
        ? v / 0.3048
        : q === "speed"
          ? v / 0.44704
          : q === "volume"
            ? v / 3.785411784
            : q === "mass"
              ? v / 0.45359237
              : v,
  toBase: (q, v) =>
    !us
      ? v
      : q === "length"
        ? v * 0.3048
        : q === "speed"
          ? v * 0.44704
          : q === "volume"
            ? v * 3.785411784
            : q === "mass"
              ? v * 0.45359237
              : v,
  label: (q) =>
    us && q === "volume"
      ? "gal"
      : q === "volume"
        ? "L"
        : q === "length"
          ? us
            ? "ft"
            : "m"
          : us
            ? "mph"
            : "m/s",
});

const done = (parts: [number, number, number][]) => ({
  done: parts.map(([pass, from_share, to_share]) => ({ pass, from_share, to_share }) as Plan["done"][number]),
});

it("knows what of a pass is sprayed, whatever the order of its parts", () => {
  const p = done([
    [1, 0.5, 1],
    [1, 0, 0.5],
    [2, 0, 0.4],
    [2, 0.5, 1],
  ]);
  expect(sprayedOf(p, 1)).toEqual([
    [0, 0.5],
    [0.5, 1],
  ]);
  expect(isDone(p, 1)).toBe(true);
  expect(isDone(p, 2)).toBe(false);
  expect(isDone(p, 3)).toBe(false);
});

const leg = (pass: number, from_share: number, to_share: number, back = false) => ({
  pass,
  from_share,
  to_share,
  back,
  from: { lat: 0, lon: 0 },
  to: { lat: 0, lon: 0 },
});

it("puts a flight on record whole, or up to where it was broken off, as it was flown", () => {
  let n = 0;
  const id = () => `i${n++}`;
  const s = { legs: [leg(0, 0, 1), leg(1, 0, 1, true), leg(2, 0, 1)] };
  expect(partsOf(s, id).map((p) => p.pass)).toEqual([0, 1, 2]);
  const broken = partsUpTo(s, 1, 0.25, id);
  expect(broken.map((p) => [p.pass, p.from_share, p.to_share])).toEqual([
    [0, 0, 1],
    [1, 0.75, 1], // flown from its far end
  ]);
  expect(partsUpTo(s, 1, 0, id).map((p) => p.pass)).toEqual([0]);
  expect(partsUpTo(s, 2, 2, id).at(-1)).toMatchObject({ pass: 2, from_share: 0, to_share: 1 });
});

it("draws north up and true to scale", () => {
  const ps = [
    { lat: 46.3, lon: -119.7 },
    { lat: 46.301, lon: -119.7 },
    { lat: 46.3, lon: -119.698 },
  ];
  const to = plane(ps);
  const [a, b, c] = ps.map(to) as [[number, number], [number, number], [number, number]];
  expect(a[1] - b[1]).toBeCloseTo(111.195, 2);
  expect(c[0] - a[0]).toBeCloseTo(2 * 111.195 * Math.cos((46.30033 * Math.PI) / 180), 1);
  expect(box([a, b, c], 10)[2]).toBeCloseTo(c[0] - a[0] + 20, 6);
  expect([100, 430, 900, 4100].map(scaleLength)).toEqual([20, 100, 200, 1000]);
});

const plan = (granules = false) =>
  ({
    wish: { granules, mix: [{ name: "Hop guard", per_ha: 0.5, percent: 0, unit: "L" }] },
    loads: [
      { litres: 30, ha: 2, water: 29, amounts: [1] },
      { litres: 15, ha: 1, water: 14.5, amounts: [0.5] },
    ],
    fills: [],
  }) as unknown as Plan;

it("sums loads, and lists what goes in with the water in two halves", () => {
  expect(totals(plan())).toEqual({ litres: 45, water: 43.5, products: [1.5] });
  expect(sheetOf(plan()).map((l) => [l.what, l.amount])).toEqual([
    ["Water, first half", 14.5],
    ["Hop guard", 1],
    ["Water, the rest", 14.5],
  ]);
  expect(sheetOf(plan(true)).map((l) => l.what)).toEqual(["Hop guard"]);
  expect(sheetOf({ ...plan(), loads: [] })).toEqual([]);
  expect(nextFill(plan())).toBe(1);
  const f = (number: number, complete: boolean) => ({ number, complete }) as Plan["fills"][number];
  expect(nextFill({ fills: [f(1, true)] })).toBe(2);
  expect(nextFill({ fills: [f(1, true), f(2, false)] })).toBe(2);
  expect(minutes(599.6)).toBe("10:00");
});

const wish: Plan["wish"] = {
  field: "",
  edge_m: 3,
  rate: 20,
  speed_ms: 6,
  swath_m: 6.1,
  flow_l_min: 0,
  unknown: "flow",
  direction: "best",
  bearing_deg: 0,
  height_m: 2.5,
  crop_m: 6,
  sections: 2,
  edges: false,
  whole_pass: true,
  end_at_start: false,
  nozzle: "fan-020",
  nozzles: 6,
  granules: false,
  mix: [{ name: "Hop guard", per_ha: 0.5, percent: 0, unit: "L" }],
  number: "",
  refills: [],
  label: {
    buffer_m: 30,
    most_rate: 25,
    least_rate: null,
    most_c: null,
    least_delta_t: 2,
    most_delta_t: 8.5,
    re_entry_hours: 24,
  },
  kg_per_l: 1,
  tank_l: 0,
  turn_s: 6,
  dry_kg: null,
};

it("types a wish and reads it back the same, in both systems of units", () => {
  for (const us of [false, true]) {
    const u = units(us);
    const back = wishForm(u, wish).parse(typedWish(wish, u));
    expect(back).toEqual(wish); // to the last digit: nobody touched anything
    // What is touched is read in the crew's units; the rest stays.
    const other = wishForm(u, wish).parse({ ...typedWish(wish, u), swath_m: "19", rate: "3" });
    expect(other.swath_m).toBeCloseTo(us ? 19 * 0.3048 : 19, 6);
    expect(other.rate).toBeCloseTo(us ? 3 * 9.35396 : 3, 3);
    expect(other).toMatchObject({ speed_ms: wish.speed_ms, mix: wish.mix, label: wish.label });
  }
  expect(rates(units(true)).rate).toBeCloseTo(9.35396, 4);
  expect(rates(units(true)).spread).toBeCloseTo(1.12085, 4);
});

it("types granules by mass, in both systems of units", () => {
  for (const us of [false, true]) {
    const u = units(us);
    const spread = { ...wish, granules: true, rate: 22.4, tank_l: 20 };
    const typed = typedWish(spread, u);
    expect(Number(typed.rate)).toBeCloseTo(us ? 19.98 : 22.4, 1);
    expect(Number(typed.tank_l)).toBeCloseTo(us ? 44.1 : 20, 1);
    expect(wishForm(u, spread).parse(typed)).toMatchObject({ rate: 22.4, tank_l: 20 });
    // The same figure of something else is another amount.
    const liquid = wishForm(u, spread).parse({ ...typed, granules: false });
    expect(liquid.rate).toBeCloseTo(us ? Number(typed.rate) * 9.35396 : 22.4, 2);
    expect(liquid.tank_l).toBeCloseTo(us ? Number(typed.tank_l) * 3.785412 : 20, 3);
  }
  expect(rateOf(rates(units(true)), true).label).toBe("lb/ac");
  expect(rateOf(rates(units(false)), false).label).toBe("L/ha");
});

it("lets what was not touched follow what somebody else kept", () => {
  const u = units(false);
  const was = typedWish(wish, u);
  const mine = { ...was, turn_s: "9", mix: [...was.mix] };
  const now = { ...was, speed_ms: "4", turn_s: "7" };
  expect(follow(mine, was, now)).toEqual({ ...was, speed_ms: "4", turn_s: "9" });
  expect(follow(was, was, now)).toEqual(now);
});

it("says how far it comes out and back", () => {
  const start = { lat: 46, lon: 7 };
  expect(reachOf(start, [])).toBeUndefined();
  const at = reachOf(start, [
    { lat: 46.01, lon: 7 },
    { lat: 46, lon: 7.01 },
  ])!;
  expect(at.most).toBeCloseTo(1112, 0);
  expect(at.least).toBeCloseTo(1112 * Math.cos((46 * Math.PI) / 180), 0);
});

it("says at each box what cannot be", () => {
  const u = units(false);
  const bad = wishForm(u, wish).safeParse({
    ...typedWish(wish, u),
    rate: "x",
    sections: "1.5",
    speed_ms: "",
    mix: [{ name: "", amount: "2", by: "ha", unit: "L" }],
  });
  expect(bad.error?.issues.map((i) => i.path.join("."))).toEqual([
    "rate",
    "speed_ms",
    "sections",
    "mix.0.name",
  ]);
});

it("says what was applied line by line, and leaves unknown empty", () => {
  const r = {
    site: "Yard",
    field: "West",
    lat: 46.31,
    lon: -119.7,
    aircraft: "Dray One",
    registration: "QB-101",
    applicator: "Odile",
    licence: "",
    product: "Hop guard 0.5 L/ha",
    number: "",
    rate: 25,
    rate_unit: "L/ha",
    area_ha: 1.0049,
    volume: 25.1,
    from: "2026-06-10T15:00:00Z",
    to: null,
    weather_from: "",
    weather_to: "",
    neighbours: "",
    note: "windy corner",
    re_entry: null,
  };
  const lines = new Map(recordLines(r, (t) => t.slice(0, 10)));
  expect(lines.get("Area")).toBe("1.00 ha, 25.1 L");
  expect(lines.get("From")).toBe("2026-06-10");
  expect(lines.get("To")).toBe("");
  expect(lines.get("Applicator")).toBe("Odile");
  expect(lines.has("Neighbours told")).toBe(false);
  expect(lines.get("Note")).toBe("windy corner");
});

it("reads a row of nozzles, a gap is named, the empty rest is not", () => {
  expect(readRow(["0,62", "0.6", "", ""], "Nozzle")).toEqual([0.62, 0.6]);
  expect(readRow(["0.6", "", "0.6"], "Nozzle")).toBe("Nozzle 2: enter what was caught, 0 for nothing.");
  expect(readRow(["", ""], "Tray")).toBe("Enter what each tray caught.");
  expect(readRow(["51"], "Nozzle")).toBe("Nozzle 1: enter 0 to 50.");
  expect(fromMean([1, 1, 1.3])).toEqual([
    expect.closeTo(-9.0909, 3),
    expect.closeTo(-9.0909, 3),
    expect.closeTo(18.1818, 3),
  ]);
  const f = checkForm("catch", "id").parse({
    numbers: { target: "3,6" },
    row: ["0.6", "0.6"],
    pulses: false,
    note: "",
  });
  expect(f).toEqual({ id: "id", kind: "catch", target: 3.6, caught: [0.6, 0.6] });
});

import { describe, expect, it } from "vitest";
import type { Units } from "../parts/units";
import { blankCraft, jobForm, jobTyped, type JobTyped } from "./form";

const metric: Units = {
  label: (q: string) => ({ length: "m", speed: "m/s", mass: "kg" })[q] ?? "",
  value: (_: string, v: number) => v,
  toBase: (_: string, v: number) => v,
} as Units;
const feet = {
  ...metric,
  value: (_: string, v: number) => v / 0.3048,
  toBase: (_: string, v: number) => v * 0.3048,
};
const me = { id: "p1", roles: ["pilot" as const] };
const zone = { zone: "UTC", local: (iso: string) => iso.slice(0, 16) };
const blank = jobTyped(undefined, metric, zone, Date.UTC(2026, 5, 10, 7, 20), me);
const good: JobTyped = { ...blank, site_id: "s1", aim: "Look at the bank" };
const faults = (x: JobTyped) =>
  (jobForm(metric, zone).safeParse(x).error?.issues ?? []).map((i) => `${i.path.join(".")}: ${i.message}`);

describe("a job in its form", () => {
  it("begins with the next hour, and with who plans it", () => {
    expect(blank).toMatchObject({ from: "2026-06-10T08:00", to: "2026-06-10T12:00", people: { p1: "rpic" } });
    expect(jobTyped(undefined, metric, zone, 0, { id: "p2", roles: ["chief"] }).people).toEqual({});
  });
  it("says at each field what is missing or cannot be", () => {
    expect(faults(good)).toEqual([]);
    expect(faults(blank)).toEqual(["site_id: Choose the site."]);
    expect(faults({ ...good, from: "" })).toEqual(["from: Enter date and time."]);
    expect(faults({ ...good, sorties: "501" })[0]).toMatch(/^sorties: /);
  });
  it("holds of the aircraft only those that fly, each at its own field", () => {
    const aircraft = {
      a: { ...blankCraft, on: true, ret: "900", speed: "fast" },
      b: { ...blankCraft, ret: "900" },
    };
    const said = faults({ ...good, aircraft });
    expect(said.map((s) => s.split(":")[0])).toEqual(["aircraft.a.ret", "aircraft.a.speed"]);
    const sent = jobForm(metric, zone).parse({
      ...good,
      aircraft: { ...aircraft, a: { ...blankCraft, on: true, ret: "45,5", lost: "return" } },
    });
    expect(sent.aircraft).toEqual([
      {
        aircraft_id: "a",
        return_m: 45.5,
        route_m: null,
        datum: "",
        mass_kg: null,
        speed_ms: null,
        home_follows: false,
        lost_link: "return",
      },
    ]);
  });
  it("takes a height of the route by what it is counted from", () => {
    const at = (datum: "sea" | "ground", route: string) => ({
      ...good,
      aircraft: { a: { ...blankCraft, on: true, datum, route } },
    });
    expect(faults(at("sea", "2400"))).toEqual([]);
    expect(faults(at("sea", "-20"))).toEqual([]);
    expect(faults(at("ground", "2400"))[0]).toMatch(/^aircraft\.a\.route: /);
    expect(faults(at("ground", "-20"))[0]).toMatch(/^aircraft\.a\.route: /);
  });
  it("asks for what the label says of spraying alone", () => {
    const label = { label_low: "1", label_high: "fast", label_height: "2", product: "Copper" };
    expect(faults({ ...good, ...label })).toEqual([]);
    expect(jobForm(metric, zone).parse({ ...good, ...label })).toMatchObject({ label: {}, product: "" });
    expect(faults({ ...good, ...label, work: "spraying" })[0]).toMatch(/^label_high: /);
  });
  it("is typed in the crew's units and sent in base units, and an old draft still serves", () => {
    const old = { on: true, ret: "100" } as JobTyped["aircraft"][string];
    const sent = jobForm(feet, zone).parse({ ...good, aircraft: { a: old } });
    expect(sent.aircraft[0]).toMatchObject({ return_m: 30.48, lost_link: "", datum: "" });
  });
  it("keeps what nobody touched to the last digit, whatever the units and the digits that are shown", () => {
    const craft = {
      aircraft_id: "a",
      return_m: 30,
      route_m: 12.345,
      speed_ms: 7.77,
      mass_kg: 2.3456,
      home_follows: false,
      lost_link: "return",
      datum: "",
    };
    const job = {
      work: "spraying",
      site_id: "s1",
      aim: "x",
      product: "Copper",
      from: "2026-06-10T08:00:30Z",
      to: "2026-06-10T12:00:00Z",
      label: { low_ms: 1.23, high_ms: 4.56, height_m: 2 },
      aircraft: [craft],
      people: [],
    } as unknown as Parameters<typeof jobForm>[2];
    const typed = jobTyped(job, feet, zone, 0, me);
    const back = jobForm(feet, zone, job).parse(typed);
    expect(back).toMatchObject({ from: job!.from, label: job!.label, aircraft: [craft] });
    const other = { ...typed, aircraft: { a: { ...typed.aircraft.a!, ret: "98" } } };
    expect(jobForm(feet, zone, job).parse(other).aircraft[0]).toMatchObject({
      return_m: 98 * 0.3048,
      route_m: 12.345,
    });
  });
});

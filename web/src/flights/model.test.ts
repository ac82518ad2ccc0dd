import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import type { Press } from "../outbox/model";
import { clock, landingCalls, signals, withPresses, type Flight, type FlightPresses } from "./model";

const type = (landing_call: Schemas["TypeEntry"]["landing_call"]) =>
  ({
    landing_call,
    profile: {
      limits: { land_by_percent: 25, land_by_cell_mv: 3550, planned_minutes: 12 },
      packs: { cells: 14 },
    },
  }) as unknown as Schemas["TypeEntry"];

describe("what calls the landing", () => {
  it.each([
    ["percent", "25 %", "or 49.7 V; 3.55 V a cell under load"],
    ["volts", "49.7 V", "or 25 %; 3.55 V a cell under load"],
    ["minutes", "12 min", "or 25 %, 49.7 V; 3.55 V a cell under load"],
  ] as const)("%s", (call, first, then) => expect(landingCalls(type(call))).toEqual({ first, then }));
});

const flight = (more: Partial<Flight> = {}) =>
  ({
    id: "f",
    state: "air",
    took_off_at: "2026-06-10T16:00:00.000Z",
    landed_at: null,
    seconds: 0,
    events: [],
    type: { profile: { packs: { call_out_every_s: 120 }, limits: { planned_minutes: 10 } } },
    ...more,
  }) as unknown as Flight;
const press = (kind: keyof FlightPresses, body: unknown = {}, at = 0): Press => ({
  id: kind,
  person: "imre",
  personName: "Imre",
  kind,
  thing: "f",
  at,
  order: at,
  body,
});
const iso = (ms: number) => new Date(Date.parse("2026-06-10T16:00:00.000Z") + ms).toISOString();

describe("a flight with what was pressed here", () => {
  const gust = press("fly.event", { id: "e", kind: "gust", note: "" }, 60_000);
  const land = press("fly.land", {}, 480_000);
  const log = press("fly.log", { landings: 2, litres: 3, remarks: "r" }, 600_000);
  it("goes from the air to the log", () => {
    const f = withPresses(flight(), [gust, land, log], iso);
    expect(f).toMatchObject({
      state: "logged",
      seconds: 480,
      landed_at: iso(480_000),
      landings: 2,
      litres: 3,
    });
    expect(f.events).toMatchObject([{ id: "e", kind: "gust", at: iso(60_000), by: "Imre" }]);
  });
  it("takes an event once, though the server has it already", () => {
    const known = flight({ events: [{ id: "e", kind: "gust", note: "", at: iso(0), by: "Imre" }] });
    expect(withPresses(known, [gust], iso).events).toHaveLength(1);
  });
  it("takes back a landing and an event", () => {
    const back = press("fly.event-back", { event: "e", kind: "gust" });
    const f = withPresses(flight(), [gust, back, land, press("fly.resume")], iso);
    expect(f).toMatchObject({ state: "air", landed_at: null, seconds: 0 });
    expect(f.events[0]?.taken_back_by).toBe("Imre");
  });
  it("is not landed twice, nor logged in the air, nor shorter than nothing", () => {
    const landed = withPresses(flight(), [land], iso);
    expect(withPresses(landed, [press("fly.land", {}, 900_000)], iso)).toEqual(landed);
    expect(withPresses(flight(), [log], iso).state).toBe("air");
    expect(withPresses(flight(), [press("fly.land", {}, -5000)], iso).seconds).toBe(0);
  });
});

describe("what is called in flight", () => {
  const keys = (t: number, f = flight()) => signals(f, t).map((s) => s.key);
  it.each([
    [119, []],
    [120, ["call-1"]],
    [539, ["call-1"]],
    [540, ["call-1", "land-soon"]],
    [599.9, ["call-1", "land-soon"]],
    [600, ["call-1", "land-by"]],
  ])("after %d s", (t, want) => expect(keys(t)).toEqual(want));
  it("counts a call that was made, but not one that was taken back", () => {
    const called = (more = {}) =>
      flight({ events: [{ id: "c", kind: "call-out", note: "", at: iso(0), by: "I", ...more }] });
    expect(keys(130, called())).toEqual([]);
    expect(keys(240, called())).toEqual(["call-2"]);
    expect(keys(130, called({ taken_back_by: "I" }))).toEqual(["call-1"]);
  });
  it("is urgent only when it is time to land", () => {
    expect(
      signals(flight(), 600)
        .filter((s) => s.urgent)
        .map((s) => s.key),
    ).toEqual(["land-by"]);
  });
  it.each([
    [0, "00:00"],
    [-3, "00:00"],
    [65.9, "01:05"],
    [3600, "60:00"],
  ])("%d s is %s", (s, want) => expect(clock(s)).toBe(want));
});

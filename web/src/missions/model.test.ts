import { describe, expect, it } from "vitest";
import type { Flight, Plan } from "./api";
import { apart, bands, flightShown, minutes, offsetWrong, sent, shotOf, sideBox } from "./model";
import { inspectForm, lookList, lookText, surveyForm, typedInspect, typedSurvey } from "./wish";
import type { Units } from "../parts/units";

const feet = 0.3048;
const us: Units = {
  show: () => "",
  value: (q, v) => (q === "length" ? v / feet : v),
  toBase: (q, v) => (q === "length" ? v * feet : v),
  label: (q) => (q === "length" ? "ft" : "m/s"),
};
const plan = (next: number, ...n: number[]) =>
  ({ next, flights: n.map((number) => ({ number }) as Flight) }) as Plan;

const survey = {
  area: "a",
  width_m: 60,
  by: "resolution",
  gsd_cm: 2.5,
  canopy: "low",
  height_m: 80,
  camera: "c",
  turned: false,
  side: 75,
  front: 75,
  speed_ms: 10,
  shutter: 1000,
  buffer_m: null,
  direction: "best",
  bearing_deg: 0,
  cross: false,
  relief: "split",
  turn_m: 0,
  lead_m: 0,
  card_gb: 64,
} as const;

describe("which flight is shown", () => {
  it("is the one asked for, else the next, else the first", () => {
    expect(flightShown(plan(2, 1, 2, 3), "3")?.number).toBe(3);
    expect(flightShown(plan(2, 1, 2, 3), null)?.number).toBe(2);
    expect(flightShown(plan(0, 1, 2), "nine")?.number).toBe(1);
    expect(flightShown(plan(0, 1), "9")?.number).toBe(1);
    expect(flightShown(plan(0), "1")).toBeUndefined();
  });
});

describe("pictures", () => {
  it("keep a place only where there is one that can be", () => {
    expect(shotOf("a", { latitude: 46.3, longitude: -119.7 }).at).toEqual({ lat: 46.3, lon: -119.7 });
    expect(shotOf("a", { latitude: NaN, longitude: 1 }).at).toBeNull();
    expect(shotOf("a", { latitude: 95, longitude: 1 }).at).toBeNull();
    expect(shotOf("a", { latitude: 46 }).at).toBeNull();
    expect(shotOf("a", undefined)).toEqual({ name: "a", at: null, time: null });
  });
  it("read the time of a camera as UTC, and refuse what is none", () => {
    expect(shotOf("a", { DateTimeOriginal: "2026:06:01 10:20:30" }).time).toBe("2026-06-01T10:20:30.000Z");
    expect(shotOf("a", { DateTimeOriginal: "yesterday" }).time).toBeNull();
    expect(shotOf("a", { DateTimeOriginal: new Date(NaN) }).time).toBeNull();
  });
  it("are counted into bands: outside and unseen are left out, equal neighbours are one", () => {
    expect(bands([-1, 0, 6, 6, 12, 30, 6, 1], 4, 12)).toEqual([
      { row: 0, from: 2, to: 4, level: 2 },
      { row: 1, from: 0, to: 2, level: 5 },
      { row: 1, from: 2, to: 3, level: 2 },
      { row: 1, from: 3, to: 4, level: 1 },
    ]);
    expect(bands([], 4, 12)).toEqual([]);
    expect(bands([3], 1, 0)).toEqual([{ row: 0, from: 0, to: 1, level: 5 }]);
  });
});

it("minutes are whole and never none", () => {
  expect(minutes(450)).toBe(8);
  expect(minutes(3)).toBe(1);
});

it("the side view reaches from the lowest ground to the highest flight", () => {
  expect(
    sideBox([
      { along_m: 0, flown_m: 200, ground_m: 190 },
      { along_m: 80, flown_m: 260 },
    ]),
  ).toEqual({ along: 80, low: 190, high: 260 });
});

describe("wishes", () => {
  it("are the same after they stood in the boxes, in the crew's units", () => {
    const typed = typedSurvey(survey, us);
    expect(typed.height_m).toBe("262.47");
    const back = surveyForm(us, survey).parse(typed);
    expect(back).toMatchObject({ height_m: survey.height_m, speed_ms: survey.speed_ms });
    expect(surveyForm(us, survey).parse({ ...typed, height_m: "262" }).height_m).toBeCloseTo(79.86, 2);
    expect(back.buffer_m).toBeNull();
    expect(back.gsd_cm).toBe(2.5);
  });
  it("refuse an overlap of 100 and an empty box", () => {
    for (const bad of [{ side: "100" }, { gsd_cm: "" }, { speed_ms: "fast" }])
      expect(surveyForm(us, survey).safeParse({ ...typedSurvey(survey, us), ...bad }).success).toBe(false);
  });
  it("keep what is to be looked at, with its picture", () => {
    const text = "Intake grate | IMG_0003.jpg\n\n  Panel 4 \n";
    expect(lookList(text)).toEqual([
      { what: "Intake grate", picture: "IMG_0003.jpg" },
      { what: "Panel 4", picture: "" },
    ]);
    expect(lookText(lookList(text))).toBe("Intake grate | IMG_0003.jpg\nPanel 4");
    const w = {
      feature: "f",
      form: "roof",
      height_m: 9,
      from_m: 1,
      radius_m: 1,
      pitch_deg: 12,
      faces_deg: 180,
      detail_mm: 2,
      safe_m: 5,
      energised_m: 0,
      camera: "c",
      sideways: 40,
      upwards: 40,
      speed_ms: 2,
      card_gb: 64,
      look: lookList(text),
    } as const;
    expect(
      inspectForm(us, { ...w, look: [...w.look] }).parse(typedInspect({ ...w, look: [...w.look] }, us)).look,
    ).toEqual(w.look);
  });
});

describe("labels", () => {
  it("never lie on each other", () => {
    const spots: [number, number][] = [];
    for (let i = 0; i < 60; i++) spots.push([(i * 37) % 50, (i * 53) % 40]);
    const out = apart(spots, 12);
    out.forEach(([x, y], i) =>
      out
        .slice(0, i)
        .forEach(([ox, oy]) => expect(Math.max(Math.abs(ox - x), Math.abs(oy - y))).toBeGreaterThan(11.9)),
    );
    expect(out.map(([x]) => x)).toEqual(spots.map(([x]) => x));
  });
  it("stay where they are with room", () => {
    expect(
      apart(
        [
          [0, 0],
          [20, 0],
          [0, 30],
        ],
        12,
      ),
    ).toEqual([
      [0, 0],
      [20, 0],
      [0, 30],
    ]);
  });
});

describe("what is said after a flight", () => {
  it("leaves unknown what nobody looked at", () => {
    expect(sent({ running: "", shake: "", offset: "" })).toEqual({ running: null, shake: "", offset_s: 0 });
  });
  it.each([
    ["60", 3600],
    ["-15", -900],
    ["0,5", 30],
  ])("takes a clock that is behind by %s minutes", (offset, seconds) => {
    expect(sent({ running: "no", shake: "hums", offset })).toEqual({
      running: false,
      shake: "hums",
      offset_s: seconds,
    });
  });
  it.each(["an hour", "2000", "-1e9"])("does not take %s for a clock", (offset) => {
    expect(offsetWrong({ running: "", shake: "", offset })).toMatch(/./);
  });
  it("takes nothing for a clock that is right", () => {
    expect(offsetWrong({ running: "", shake: "", offset: "" })).toBeUndefined();
  });
});

import { expect, it } from "vitest";
import { rememberUnits } from "../parts/number";
import type { Units } from "../parts/units";
import { alikeAll, blankLog, correctionForm, logForm, type LogTyped, readOutputs } from "./logform";
import type { Flight } from "./model";

const metric: Units = {
  show: () => "",
  value: (_, v) => v,
  toBase: (_, v) => v,
  label: (q) => ({ temperature: "°C", volume: "L", length: "m", speed: "m/s", mass: "kg" })[q],
};
/** Degrees Fahrenheit, US gallons. */
const us: Units = {
  ...metric,
  value: (q, v) => (q === "temperature" ? v * 1.8 + 32 : v / 3.785411784),
  toBase: (q, v) => (q === "temperature" ? (v - 32) / 1.8 : v * 3.785411784),
  label: (q) => (q === "temperature" ? "°F" : "gal"),
};

const flight = (tank_l = 0) =>
  ({
    packs: [
      { id: "p1", label: "DR1", cells: 3 },
      { id: "p2", label: "DR2", cells: 3 },
    ],
    type: { motors: 2, profile: { tank_l } },
  }) as unknown as Flight;

const typed = (o: Partial<LogTyped> = {}): LogTyped => ({
  ...blankLog(flight()),
  warmth_c: ["41", "42,5"],
  packs: [
    { percent: "34", temp: "31", cells: [] },
    { percent: "", temp: "30", cells: ["3700", "3,71", "3690"] },
  ],
  ...o,
});

const faults = (f: Flight, t: LogTyped) => {
  const r = logForm(f, metric).safeParse(t);
  return r.success ? [] : r.error.issues.map((i) => `${i.path.join(".")}: ${i.message}`);
};

it("turns what is typed into the log, decimal commas and cells too", () => {
  expect(logForm(flight(), metric).parse(typed())).toEqual({
    landings: 1,
    warmth_c: [41, 42.5],
    packs: [
      { pack_id: "p1", percent: 34, cell_mv: null, temperature_c: 31 },
      { pack_id: "p2", percent: null, cell_mv: [3700, 3710, 3690], temperature_c: 30 },
    ],
    litres: null,
    remarks: "",
    next_time: "",
    signs: [],
  });
});

it("turns the units of the crew into base units", () => {
  rememberUnits([]);
  const log = logForm(flight(16), us).parse(typed({ warmth_c: ["104", "104"], litres: "2" }));
  expect(log.warmth_c).toEqual([expect.closeTo(40, 9), expect.closeTo(40, 9)]);
  expect(log.packs[0]!.temperature_c).toBeCloseTo(-0.5556, 3);
  expect(log.litres).toBeCloseTo(7.5708, 4);
});

it("names what is missing, and where", () => {
  const bare = blankLog(flight());
  expect(faults(flight(16), { ...bare, landings: "1.5" })).toEqual([
    "landings: Enter a whole number of landings, 1 to 50.",
    "warmth_c: Motor 1: feel or measure it and enter its warmth.",
    "warmth_c: Motor 2: feel or measure it and enter its warmth.",
    "packs.0.temp: Enter the temperature of DR1.",
    "packs.1.temp: Enter the temperature of DR2.",
    "litres: Enter what was sprayed; 0 when nothing was.",
  ]);
});

it("wants a level or cells of each pack, and neither may be nonsense", () => {
  const one = (percent: string, cells: string[] = []) =>
    faults(flight(), typed({ packs: [typed().packs[0]!, { percent, temp: "30", cells }] }));
  expect(one("")).toEqual(["packs.1.percent: Enter the level of DR2, or its cells."]);
  expect(one("101")).toEqual(["packs.1.percent: Enter 0 to 100 %."]);
  expect(one("40", ["3700", "x", "3700"])).toEqual(["packs.1.cells: Cell 2: “x” is not a number."]);
  expect(one("40", ["3700", "", "3700"])).toEqual(["packs.1.cells: Cell 2: enter a value."]);
});

it("asks for litres only of an aircraft with a tank", () => {
  expect(faults(flight(0), typed())).toEqual([]);
  expect(faults(flight(16), typed())).toEqual(["litres: Enter what was sprayed; 0 when nothing was."]);
  expect(faults(flight(16), typed({ litres: "0" }))).toEqual([]);
});

it("takes motors that feel alike as warm as the first, and leaves what was entered", () => {
  expect(alikeAll(["35"], 3)).toEqual(["35", "35", "35"]);
  expect(alikeAll(["35", "", " ", "61"], 4)).toEqual(["35", "35", "35", "61"]);
  expect(alikeAll([], 2)).toEqual(["", ""]);
});

it("corrects a flight without touching the litres that nobody typed", () => {
  const f = { ...flight(30), seconds: 754, landings: 1, litres: 27.123 } as Flight;
  const { shown, schema } = correctionForm(f, us);
  expect(shown).toMatchObject({ minutes: "12", seconds: "34", litres: "7.17" });
  expect(schema.parse({ ...shown, minutes: "13" })).toMatchObject({ seconds: 814, litres: 27.123 });
  expect(schema.parse({ ...shown, litres: "10" }).litres).toBeCloseTo(37.854, 3);
  expect(schema.safeParse({ ...shown, litres: "" }).error?.issues[0]?.message).toBe(
    "Enter what was sprayed.",
  );
});

it("says each fault of a correction at its field, and asks for no litres without a tank", () => {
  const f = { ...flight(), seconds: 754, landings: 1, litres: 0 } as Flight;
  const { shown, schema } = correctionForm(f, metric);
  const r = schema.safeParse({ ...shown, minutes: "1440", seconds: "60", landings: "0", litres: "x" });
  expect(r.error?.issues.map((i) => i.path[0])).toEqual(["minutes", "seconds", "landings"]);
});

it("reads the outputs of all motors, or names the first that cannot be", () => {
  expect(readOutputs(["0", "100"], 2)).toEqual({ outputs: [0, 100] });
  expect(readOutputs(["48"], 2)).toEqual({ wrong: "Motor 2: enter its output." });
  expect(readOutputs(["48", "101"], 2)).toEqual({ wrong: "Motor 2: Enter 0 to 100 %." });
});

import { beforeAll, describe, expect, it } from "vitest";
import { rememberUnits } from "../parts/number";
import type { Units } from "../parts/units";
import { blankReading, readingForm, type ReadingTyped } from "./reading";

const celsius = {
  value: (_: string, v: number) => v,
  toBase: (_: string, v: number) => v,
  label: () => "°C",
} as unknown as Units;
const read = (change: Partial<ReadingTyped>) =>
  readingForm(celsius).safeParse({ ...blankReading(3), cell_mv: ["4.1", "4100", "4,1"], ...change });
const faults = (change: Partial<ReadingTyped>) =>
  read(change).error?.issues.map((i) => i.path.join(".")) ?? [];

beforeAll(() => rememberUnits([]));

describe("a reading that is typed", () => {
  it("is cells alone, with nothing made up", () => {
    expect(read({}).data).toEqual({
      cell_mv: [4100, 4100, 4100],
      rested_min: null,
      percent: null,
      resistance_mohm: null,
      under_load: null,
      mah_in: null,
      mah_out: null,
      start_percent: null,
      end_percent: null,
      temperature_c: null,
    });
  });
  it("keeps levels only with the charge between them", () => {
    expect(read({ start_percent: "20", end_percent: "90" }).data?.start_percent).toBeNull();
    const out = read({ mah: "5 000", way: "out", start_percent: "90", end_percent: "20" }).data;
    expect([out?.mah_in, out?.mah_out, out?.start_percent]).toEqual([null, 5000, 90]);
  });
  it("takes resistance of all cells or of none", () => {
    expect(read({ mohm: ["1.5", "1,6", "2"] }).data?.resistance_mohm).toEqual([1.5, 1.6, 2]);
    expect(faults({ mohm: ["1.5", "", "2"] })).toEqual(["mohm"]);
  });
  it("wants current and time beside cells under load", () => {
    const loaded = ["3.7", "3.7", "3.7"];
    expect(faults({ loaded })).toEqual(["amps"]);
    expect(read({ loaded, amps: "40", load_s: "5" }).data?.under_load).toEqual({
      cell_mv: [3700, 3700, 3700],
      amps: 40,
      seconds: 5,
    });
  });
  it("names what cannot be", () => {
    expect(faults({ cell_mv: ["4.1", "x", "4.1"] })).toEqual(["cell_mv"]);
    expect(faults({ percent: "101", temperature_c: "200", rested_min: "-1" })).toEqual([
      "rested_min",
      "percent",
      "temperature_c",
    ]);
  });
});

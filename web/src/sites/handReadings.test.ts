import { expect, it } from "vitest";
import { readHand, readings, reportForm } from "./handReadings";
import { readWay, type How, ways } from "./heightWays";

it("takes each figure at the ends of its range, and names each that cannot be", () => {
  for (const [k, , , min, max] of readings) {
    for (const v of [min, max]) {
      const r = readHand({ wind_height_m: "2", [k]: String(v) });
      expect(r.values[k], `${k} ${v}`).toBe(v);
      expect(r.wrong, k).toEqual({});
    }
    for (const text of [String(min - 0.1), String(max + 0.1), "calm"])
      expect(Object.keys(readHand({ wind_height_m: "2", [k]: text }).wrong), `${k} ${text}`).toEqual([k]);
  }
});

it("never makes a figure of what stays empty, and asks where the wind was measured", () => {
  const r = readHand({ wind_ms: "3" });
  expect(r.values.temp_c).toBeNull();
  expect(r.wrong).toEqual({ wind_height_m: "Enter at what height the wind was measured." });
});

it("leaves unknown where the station of a report stands", () => {
  expect(reportForm.parse({ report: "METAR", station_m: "", station_km: "12" })).toEqual({
    report: "METAR",
    station_m: undefined,
    station_km: 12,
  });
  expect(reportForm.safeParse({ report: "METAR", station_m: "7000", station_km: "" }).success).toBe(false);
});

it("asks for every measure of each way, with an error that is usual until it is typed", () => {
  for (const how of Object.keys(ways) as How[]) {
    const way = ways[how];
    const asked = [...way.entries.map((e) => e.name as string), ...(way.eye ? ["eye"] : [])];
    expect(Object.keys(readWay(how, {}).wrong).sort(), how).toEqual(asked.sort());
    const full = Object.fromEntries([...way.entries.map((e) => [e.name, String(e.max)]), ["eye", "1,6"]]);
    const { body, wrong } = readWay(how, full);
    expect(wrong, how).toEqual({});
    for (const e of way.entries)
      expect(body[e.name as never], how).toEqual({ v: e.max, sigma: Number(e.sigma) });
    expect(readWay(how, { ...full, [`${way.entries[0]!.name}-s`]: "51" }).wrong).not.toEqual({});
  }
});

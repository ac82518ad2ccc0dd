import { describe, expect, it } from "vitest";
import { apart } from "./shapes";
import { beginning, cloudWords, readHeadings, readPlaces, siteForm, windows } from "./model";

const hours = (verdicts: string) =>
  [...verdicts].map((v, i) => ({
    at: new Date(Date.UTC(2026, 5, 10, i)).toISOString(),
    verdict: ({ c: "clear", w: "watch", s: "stop" } as const)[v as "c"],
  }));
const spans = (verdicts: string) =>
  windows(hours(verdicts)).map(([a, b]) => `${+a.slice(11, 13)}-${+b.slice(11, 13)}`);

describe("hours without a Stop", () => {
  it.each([
    ["", []],
    ["s", []],
    ["c", ["0-1"]],
    ["scs", ["1-2"]],
    ["cwscc", ["0-2", "3-5"]],
    ["ssw", ["2-3"]],
  ])("%j", (verdicts, want) => expect(spans(verdicts)).toEqual(want));
});

describe("places as people type them", () => {
  it("reads one a line", () => {
    expect(readPlaces("46.31, -119.70\n\n 46.32;-119.71 ")).toEqual([
      { lat: 46.31, lon: -119.7 },
      { lat: 46.32, lon: -119.71 },
    ]);
  });
  it.each(["46.31", "N46.31 N119", "46.31, -119.70, 3", "a, b"])("names the line of %j", (t) => {
    expect(readPlaces(`46.31, -119.70\n${t}`)).toMatch(/^Line 2: /);
  });
});

it("reads headings, or none of them", () => {
  expect(readHeadings("90 270")).toEqual([90, 270]);
  expect(readHeadings("0,359.5; 12")).toEqual([0, 359.5, 12]);
  expect(readHeadings("  ")).toEqual([]);
  for (const t of ["360", "-1", "north", "90 x"]) expect(readHeadings(t)).toBeUndefined();
});

describe("the head of a site", () => {
  const good = {
    name: "Corner",
    place: "46.31, -119.7",
    elevation: "210",
    note: "",
    practice: false,
    begin: false,
  };
  const faults = (v: unknown) => {
    const r = siteForm.safeParse(v);
    return r.success ? [] : r.error.issues.map((i) => i.path.join("."));
  };
  it("takes a place as it is pasted", () => {
    expect(siteForm.parse(good)).toMatchObject({ place: { lat: 46.31, lon: -119.7 }, elevation: 210 });
    expect(faults({ ...good, place: "46\u00b018'36\"N 119\u00b042'W", elevation: "210,5" })).toEqual([]);
  });
  it("names each field that cannot be used", () => {
    expect(faults({ ...good, name: " ", place: "146.31, 0", elevation: "high" })).toEqual([
      "name",
      "place",
      "elevation",
    ]);
    expect(siteForm.parse({ ...good, elevation: " " }).elevation).toBeNull();
  });
});

describe("a map that begins by itself", () => {
  it("has a main take-off place in the middle of a square of 100 m", () => {
    const [off, field] = beginning({ lat: 46.31, lon: -119.7 }, ["a", "b"]);
    expect(off).toMatchObject({
      id: "a",
      kind: "take-off",
      main: true,
      places: [{ lat: 46.31, lon: -119.7 }],
    });
    const [sw, se, ne] = field!.places;
    expect(apart(sw!, se!)).toBeCloseTo(100, 0);
    expect(apart(se!, ne!)).toBeCloseTo(100, 0);
    expect(apart(sw!, ne!)).toBeCloseTo(141.4, 0);
  });
});

describe("room under the cloud", () => {
  const of = (cloud_ceiling_m: number | null, cloud_known: boolean, cloud_base_ft: number | null) =>
    cloudWords({ cloud_ceiling_m, air: { cloud_known, cloud_base_ft } });
  it("is said, or that there is no cloud, or that nobody knows", () => {
    expect(of(456.4, true, 2000)).toBe("456 m above ground");
    expect(of(null, true, null)).toBe("no cloud");
    expect(of(null, false, null)).toBe("not known");
    expect(of(null, true, 2000)).toBe("not known"); // a cloud whose height over the site nobody knows
  });
});

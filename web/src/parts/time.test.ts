import { describe, expect, it } from "vitest";
import { hoursMinutes, instant } from "./time";

describe("the instant of a local clock", () => {
  it.each([
    ["2026-06-10T09:40", "America/Los_Angeles", "2026-06-10T16:40:00.000Z"],
    ["2026-01-10T09:40", "America/Los_Angeles", "2026-01-10T17:40:00.000Z"],
    ["2026-06-10T09:40", "Europe/Berlin", "2026-06-10T07:40:00.000Z"],
    ["2026-06-10T09:40", "Asia/Kathmandu", "2026-06-10T03:55:00.000Z"],
    ["2026-06-10T00:05", "Pacific/Auckland", "2026-06-09T12:05:00.000Z"],
    // The day on which clocks go back, before and after it.
    ["2026-11-01T00:30", "America/Los_Angeles", "2026-11-01T07:30:00.000Z"],
    ["2026-11-01T03:30", "America/Los_Angeles", "2026-11-01T11:30:00.000Z"],
  ])("%s in %s is %s", (local, zone, utc) => {
    expect(instant(local, zone)).toBe(utc);
  });
  it("knows none of what is no time", () => {
    for (const t of ["", "tomorrow", "2026-13-01T00:00"]) expect(instant(t, "UTC")).toBeUndefined();
  });
});

it("says hours and minutes", () => {
  expect([0, 59, 61, 3599, 3600, 7530].map(hoursMinutes)).toEqual([
    "0:00",
    "0:01",
    "0:01",
    "1:00",
    "1:00",
    "2:06",
  ]);
});

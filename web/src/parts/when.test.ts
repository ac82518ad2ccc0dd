import { describe, expect, it } from "vitest";
import { dayAfter, isDay, isMoment, shaped, weekday } from "./when";

/** Types a text key by key. */
const typed = (text: string, parts: 3 | 5) => [...text].reduce((now, c) => shaped(now + c, parts, true), "");

describe("a day as it is typed", () => {
  it.each([
    ["20261130", "2026-11-30"],
    ["2026-11-30", "2026-11-30"],
    ["2026-6-1", "2026-06-1"],
    ["2026/6/01", "2026-06-01"],
    ["2026.11.30", "2026-11-30"],
    ["20261130999", "2026-11-30"],
    ["26", "26"],
    ["abc", ""],
    ["--2026", "2026-"],
  ])("%s", (text, want) => expect(typed(text, 3)).toBe(want));
  it("does not bring back what is deleted", () => {
    expect(shaped("2026-", 3, false)).toBe("2026");
    expect(shaped("2026-1", 3, false)).toBe("2026-1");
    expect(shaped("2026-11", 3, false)).toBe("2026-11");
  });
});

describe("a moment as it is typed", () => {
  it.each([
    ["202611301805", "2026-11-30 18:05"],
    ["2026-11-30T18:05", "2026-11-30 18:05"],
    ["2026-11-30 6:05", "2026-11-30 06:05"],
  ])("%s", (text, want) => expect(typed(text, 5)).toBe(want));
});

describe("what is a day", () => {
  it.each(["2026-02-28", "2024-02-29", "2026-12-31"])("%s is", (d) => expect(isDay(d)).toBe(true));
  it.each(["2026-02-29", "2026-13-01", "2026-00-10", "2026-1-1", "", "2026-11-31", "x"])("%s is none", (d) =>
    expect(isDay(d)).toBe(false),
  );
  it.each(["2026-11-30 00:00", "2026-11-30 23:59", "2026-11-30T12:00"])("%s is a moment", (d) =>
    expect(isMoment(d)).toBe(true),
  );
  it.each(["2026-11-30 24:00", "2026-11-30 12:60", "2026-11-30", "2026-02-30 12:00"])("%s is none", (d) =>
    expect(isMoment(d)).toBe(false),
  );
  it("knows the days around it", () => {
    expect(dayAfter("2024-02-28", 1)).toBe("2024-02-29");
    expect(dayAfter("2026-01-01", -1)).toBe("2025-12-31");
    expect(weekday("2026-11-30")).toBe("Monday");
    expect(weekday("2026-11-30 18:05")).toBe("Monday");
    expect(weekday("2026-11-3")).toBe("");
  });
});

import { describe, expect, it } from "vitest";
import { csvOf, hoursOf, weeksWords } from "./model";

const row = (name: string, seconds: number) => ({ name, seconds, flights: 1, landings: 1 });

describe("log", () => {
  it("asks for the same selection as a file", () => {
    expect(csvOf({ q: "hop & co", pilot: undefined, from: "2026-01-02" })).toBe(
      "/api/v1/log.csv?q=hop+%26+co&from=2026-01-02",
    );
  });
  it("puts the most hours first, to a tenth, and no more than there is room for", () => {
    const got = hoursOf([row("a", 3599), row("b", 7200), row("c", 0)], 2);
    expect(got).toEqual([
      { name: "b", hours: 2 },
      { name: "a", hours: 1 },
    ]);
  });
  it("says weeks in words", () => {
    const weeks = [
      { from: "2026-06-01", flights: 2, seconds: 60 },
      { from: "2026-06-08", flights: 9, seconds: 60 },
    ];
    expect(weeksWords(weeks)).toBe("11 flights in 2 weeks, the most, 9, in the week of 2026-06-08");
    expect(weeksWords(weeks.slice(0, 1))).toContain("2 flights in 1 week,");
  });
});

import { describe, expect, it } from "vitest";
import { months, weeksOf, weekWords, yearWords } from "./model";

const y = {
  weeks: ["2026-05-25", "2026-06-01", "2026-06-08"],
  aircraft: [
    {
      id: "a",
      flights: [3, 0, 1],
      seconds: [5400, 0, 1800],
      work: [0, 1, 0],
      stops: [0, 1, 0],
      down: [false, true, true],
    },
  ],
};

describe("the year of an aircraft", () => {
  it("is told week by week and as a whole", () => {
    const w = weeksOf(y, "a");
    expect(yearWords(w)).toBe("4 flights, 2.0 h; 1 work order signed; 1 Stop; on the ground in 2 weeks");
    expect(weekWords(w[1]!)).toBe(
      "Week of 2026-06-01: 0 flights, 0.0 h; 1 work order signed; 1 Stop began; something stood open",
    );
  });
  it("is at rest where nothing is on record", () => {
    expect(yearWords(weeksOf(y, "b"))).toBe(
      "0 flights, 0.0 h; 0 work orders signed; 0 Stops; on the ground in 0 weeks",
    );
  });
  it("names a month over the week in which it begins", () => {
    expect(months(y.weeks)).toEqual([{ at: 1, name: "Jun" }]);
    expect(months(["2025-12-29", "2026-01-05", "2026-01-12"])).toEqual([{ at: 1, name: "Jan" }]);
  });
});

import { describe, expect, it } from "vitest";
import { readEach, typedMoment, typedNumber, typedPrice, typedWhole } from "./typed";

const said = (r: { success: boolean; error?: { issues: { message: string }[] } }) =>
  r.error?.issues[0]?.message;

describe("a number as it is typed", () => {
  it("takes the ends of its range, with point or comma, and nothing beyond", () => {
    const s = typedNumber(1, 100, "%");
    for (const [text, v] of [
      ["1", 1],
      ["100", 100],
      ["12,5", 12.5],
      [" 7.0 ", 7],
    ] as const)
      expect(s.parse(text)).toBe(v);
    for (const text of ["0.99", "100.01", "-5", "1.000,5", "seven", "1e3"])
      expect(s.safeParse(text).success, text).toBe(false);
    expect(said(s.safeParse("0.99"))).toBe("Enter 1 to 100 %.");
  });
  it("is nothing where it is empty, or a fault with its words", () => {
    expect(typedNumber(1, 100, "%").parse(" ")).toBeNull();
    expect(said(typedNumber(1, 100, "%", "Enter the level.").safeParse(""))).toBe("Enter the level.");
  });
});

describe("a whole number", () => {
  it("is never rounded in silence", () => {
    const s = typedWhole(0, 20, "Enter a whole number of packs, 0 to 20.", 0);
    expect(s.parse("")).toBe(0);
    expect(s.parse("20")).toBe(20);
    for (const text of ["1.5", "21", "-1", "x"])
      expect(said(s.safeParse(text)), text).toBe("Enter a whole number of packs, 0 to 20.");
    expect(typedWhole(1, 5, "How many?").safeParse("").success).toBe(false);
  });
});

it("reads a price to the cent", () => {
  expect(typedPrice.parse("19,99")).toBe(1999);
  expect(typedPrice.parse("0.29")).toBe(29);
  expect(typedPrice.parse("")).toBeNull();
  expect(typedPrice.safeParse("-1").success).toBe(false);
});

it("reads a moment by the clock of its zone, and no day that is not", () => {
  expect(typedMoment("America/Los_Angeles").parse("2026-06-10 09:40")).toBe("2026-06-10T16:40:00.000Z");
  for (const text of ["", "2026-02-30 10:00", "10.06.2026", "2026-06-10"])
    expect(said(typedMoment("America/Los_Angeles").safeParse(text)), text).toBe("Enter date and time.");
});

it("reads several at once, and says each fault by its name", () => {
  const r = readEach(
    { a: "4", b: "x" },
    { a: typedNumber(0, 5, "m"), b: typedNumber(0, 5, "m"), c: typedNumber(0, 5, "m", "Enter it.") },
  );
  expect(r.values.a).toBe(4);
  expect(Object.keys(r.wrong)).toEqual(["b", "c"]);
});

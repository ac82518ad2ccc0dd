import { beforeAll, describe, expect, it } from "vitest";
import { parseInRange, parseNumber, rememberUnits } from "./number";

beforeAll(() =>
  rememberUnits([
    { code: "m", quantity: "length", label: "m", factor: 1, offset: 0, decimals: 1 },
    { code: "ft", quantity: "length", label: "ft", factor: 0.3048, offset: 0, decimals: 0 },
    { code: "degC", quantity: "temperature", label: "°C", factor: 1, offset: 0, decimals: 0 },
    { code: "degF", quantity: "temperature", label: "°F", factor: 5 / 9, offset: -160 / 9, decimals: 0 },
  ]),
);

describe("a number as people type it", () => {
  it.each([
    ["4.2", 4.2],
    ["4,2", 4.2],
    [" 12 500 ", 12500],
    ["\u22123", -3],
    [".5", 0.5],
    ["+7", 7],
    ["0", 0],
  ])("reads %j", (text, value) => {
    expect(parseNumber(text)).toEqual({ ok: true, value });
  });
  it.each(["abc", "1.234,5", "1,234.5", "1.234.567", "4.2.1", "1e5", "Infinity", "NaN", "--3", "3-", "0x10"])(
    "does not guess %j",
    (text) => {
      const p = parseNumber(text);
      expect(p).toMatchObject({ ok: false, empty: false });
    },
  );
  it("tells empty from wrong", () => {
    expect(parseNumber("  ")).toEqual({ ok: false, empty: true });
  });
});

describe("a number with its unit, in a range", () => {
  const value = (text: string, unit: string) => {
    const p = parseInRange(text, -100, 500, unit);
    return p.ok ? p.value : NaN;
  };
  it("takes another unit of the same quantity over", () => {
    expect(value("100 ft", "m")).toBeCloseTo(30.48, 9);
    expect(value("30.48 m", "ft")).toBeCloseTo(100, 9);
    expect(value("77 °F", "°C")).toBeCloseTo(25, 9);
    expect(value("12 m", "m")).toBe(12);
  });
  it("refuses a unit of another quantity", () => {
    expect(parseInRange("20 °C", 0, 500, "m")).toMatchObject({ ok: false, empty: false });
    expect(parseInRange("20 kg", 0, 500, "m")).toMatchObject({ ok: false, empty: false });
  });
  it.each([
    ["0", true],
    ["-0.01", false],
    ["500", true],
    ["500.01", false],
  ])("holds %s against 0 to 500: %s", (text, ok) => {
    const p = parseInRange(text, 0, 500, "m");
    expect(p.ok).toBe(ok);
    if (!ok) expect(p).toMatchObject({ sentence: "Enter 0 to 500 m." });
  });
});

import { describe, expect, it } from "vitest";
import { placeWords, readPlace, showPlace } from "./place";

describe("a place as people type it", () => {
  const at = (text: string) => {
    const r = readPlace(text);
    return r.ok ? [+r.place.lat.toFixed(5), +r.place.lon.toFixed(5)] : r.sentence;
  };
  it.each([
    "46.31, -119.7",
    "46.31 -119.7",
    "46.31,-119.7",
    "(46.31, -119.7)",
    "46,31; -119,7",
    "46,31 -119,7",
    "46.31 \u2212119.7",
    "46.31N 119.7W",
    "N46.31 W119.7",
    "119.7W 46.31N",
    "46°18'36\"N 119°42'00\"W",
    "46° 18′ 36″ N, 119° 42′ 0″ W",
    "46 18 36 N 119 42 0 W",
    "46:18:36N, 119:42:00W",
    "46°18.6'N 119°42'W",
    "N46 18.6 W119 42.0",
  ])("%s", (text) => expect(at(text)).toEqual([46.31, -119.7]));
  it("knows the other halves of the earth", () => {
    expect(at("33°51'35\"S 151°12'40\"E")).toEqual([-33.85972, 151.21111]);
    expect(at("-33.85972, 151.21111")).toEqual([-33.85972, 151.21111]);
    expect(at("0, 0")).toEqual([0, 0]);
  });
  it.each([
    ["", "no place"],
    ["46.31", "no place"],
    ["46,31", "no place"], // one number, or two: nobody knows
    ["the corner", "no place"],
    ["146.31, -119.7", "Latitude comes first"],
    ["-119.7, 46.31", "Latitude comes first"],
    ["46.31, 181", "Longitude"],
    ["46.31N 45.2N", "One is north"],
    ["46°61'N 119°W", "no place"],
    ["46.5 30 N 119 W", "no place"],
    ["46.31, -119.7, 210", "no place"],
    ["-33.86 S, 151.2 E", "no place"], // a minus and a mark: nobody knows which was meant
    ["Infinity, 0", "no place"],
  ])("%s is told in a sentence", (text, says) => expect(at(text)).toContain(says));
  it("is said in words, to be read against what was meant", () => {
    expect(placeWords({ lat: 46.31, lon: -119.7 })).toBe("46.31° north, 119.7° west");
    expect(placeWords({ lat: -33.85972, lon: 151.21111 })).toBe("33.85972° south, 151.21111° east");
  });
  it("comes back from what it shows", () => {
    for (let i = 0; i < 200; i++) {
      const p = { lat: ((i * 7919) % 170) - 85 + i / 997, lon: ((i * 104729) % 360) - 180 + i / 991 };
      if (Math.abs(p.lat) > 85 || Math.abs(p.lon) > 180) continue;
      const back = readPlace(showPlace(p));
      expect(
        back.ok && Math.abs(back.place.lat - p.lat) < 1e-6 && Math.abs(back.place.lon - p.lon) < 1e-6,
      ).toBe(true);
    }
  });
});

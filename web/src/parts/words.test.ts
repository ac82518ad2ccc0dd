import { describe, expect, it } from "vitest";
import { explained, terms } from "./words";

const words = (t: string) => explained(t).flatMap((p) => (p.term ? [p.term] : []));

describe("words of the trade in a text", () => {
  it("are found, each once, in their order", () => {
    const text = "Gusts 9 m/s, density altitude 640 m; gusts again; Delta T 9.";
    expect(words(text)).toEqual(["gust", "densityAltitude", "deltaT"]);
    expect(
      explained(text)
        .map((p) => p.text)
        .join(""),
    ).toBe(text);
  });
  it("are whole words, and nothing else is touched", () => {
    expect(words("Disgusting healthier motorcycles")).toEqual([]);
    expect(explained("")).toEqual([]);
    expect(explained("Nothing here.")).toEqual([{ text: "Nothing here." }]);
  });
  it("take the longer of two that share a beginning", () => {
    expect(words("spread of the cells")).toEqual(["spread"]);
    expect(explained("The return height is low")[1]).toEqual({ text: "return height", term: "returnHeight" });
  });
  it("lose no letter of any text made of them", () => {
    const all = Object.values(terms).map((t) => t.word);
    for (const a of all)
      for (const b of all) {
        const text = `${a}, ${b.toLowerCase()}: ${a}.`;
        expect(
          explained(text)
            .map((p) => p.text)
            .join(""),
        ).toBe(text);
      }
  });
});

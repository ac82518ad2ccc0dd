import { describe, expect, it } from "vitest";
import { nextStep, steps, type Step } from "./model";

describe("the start of a crew", () => {
  const all = Object.keys(steps).map((key) => ({ key, done: false })) as Step[];
  it("leads through what is not done, in order", () => {
    expect(nextStep(all)).toBe("people");
    expect(nextStep(all.map((s, i) => ({ ...s, done: i < 3 })))).toBe(all[3]!.key);
    expect(nextStep(all.map((s, i) => ({ ...s, done: i !== 1 })))).toBe("aircraft");
    expect(nextStep(all.map((s) => ({ ...s, done: true })))).toBeUndefined();
  });
  it("says of every step why it comes and where it is done", () => {
    for (const s of Object.values(steps)) {
      expect(s.why.length).toBeGreaterThan(20);
      expect(s.to).toMatch(/^\//);
    }
  });
});

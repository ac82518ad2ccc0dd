import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { remedyWords } from "../../parts/remedy";
import {
  blankWind,
  byLifter,
  jobOf,
  lapse,
  lifterOf,
  lifterWords,
  noJob,
  readWind,
  windHolds,
  windOffer,
} from "./model";

const finding = (kind?: string, verdict = "stop") =>
  ({
    rule: "wind",
    verdict,
    sentence: kind ?? "sky",
    source: "",
    evidence: "",
    remedy: kind && { kind },
  }) as unknown as Schemas["Finding"];

describe("who lifts a finding", () => {
  it("groups them in the order in which a pilot asks, each in the order it came", () => {
    const all = ["documents", "enter-wind", undefined, "walkround", "defect", "choose-packs"].map((k) =>
      finding(k),
    );
    expect(byLifter(all).map((g) => [g.lifter, g.findings.map((f) => f.sentence)])).toEqual([
      ["here", ["enter-wind", "choose-packs"]],
      ["pilot", ["walkround"]],
      ["workshop", ["defect"]],
      ["office", ["documents"]],
      ["nobody", ["sky"]],
    ]);
    expect(byLifter([])).toEqual([]);
  });
  it("loses no finding", () => {
    const all = ["documents", "enter-wind", undefined, "job-rules", "task"].map((k) => finding(k));
    expect(byLifter(all).flatMap((g) => g.findings)).toHaveLength(all.length);
  });
  it("has words for each", () => {
    expect(lifterOf(undefined)).toBe("nobody");
    Object.values(lifterWords).forEach((w) => expect(w).not.toBe(""));
    expect(remedyWords({ kind: "job-rules" })).toBe("Answer on one page");
  });
});

const metric = {
  value: (_: string, v: number) => v,
  toBase: (_: string, v: number) => v,
  label: (q: string) => (q === "speed" ? "m/s" : "m"),
};

describe("a reading of the wind", () => {
  const t = { ...blankWind, at: "2026-06-10T16:00:00.000Z" };
  it("is none without a steady wind, or without its time", () => {
    expect(readWind(t, metric)).toEqual({ wrong: {} });
    expect(readWind({ ...blankWind, steady: "3" }, metric).wind).toBeUndefined();
  });
  it("takes commas and the usual height", () => {
    expect(readWind({ ...t, steady: "3,5" }, metric).wind).toMatchObject({
      steady_ms: 3.5,
      gust_ms: null,
      measured_m: 2,
    });
  });
  it.each([
    [{ steady: "61" }, "steady"],
    [{ steady: "5", gust: "4" }, "gust"],
    [{ steady: "5", height: "0" }, "height"],
  ] as const)("%j is wrong at %s", (part, at) => {
    const r = readWind({ ...t, ...part }, metric);
    expect(r.wind).toBeUndefined();
    expect(r.wrong[at]).toBeTruthy();
  });
});

describe("the wind measured here before", () => {
  const at = Date.parse("2026-06-10T16:00:00.000Z");
  const before = { ...blankWind, at: "2026-06-10T16:00:00.000Z", steady: "3", gust: "4" };
  it("is offered until it has aged out, with the time it was measured", () => {
    expect(windOffer(blankWind, before, at + windHolds - 1)).toEqual(before);
    expect(windOffer(blankWind, before, at + windHolds)).toBeUndefined();
    expect(windOffer(blankWind, before, at - 1)).toBeUndefined();
  });
  it("is not offered over what is entered, nor out of nothing", () => {
    expect(windOffer({ ...blankWind, steady: "5" }, before, at + 1)).toBeUndefined();
    expect(windOffer(blankWind, undefined, at)).toBeUndefined();
    expect(windOffer(blankWind, { ...before, steady: "" }, at)).toBeUndefined();
  });
});

it("takes no job for a choice, and not for a job", () => {
  expect([jobOf({ job: null }), jobOf({ job: noJob }), jobOf({ job: "j" })]).toEqual([null, null, "j"]);
});

it("says how long a signature still holds", () => {
  const until = "2026-06-10T10:00:00Z";
  const at = (time: string) => lapse(until, Date.parse(`2026-06-10T${time}Z`));
  expect(at("09:44:59")).toEqual({ state: "holds", minutes: 15 });
  expect(at("09:45:00")).toEqual({ state: "soon", minutes: 15 });
  expect(at("09:59:30")).toEqual({ state: "soon", minutes: 0 });
  expect(at("10:00:00")).toEqual({ state: "over", minutes: 0 });
  expect(lapse("not a time", Date.now()).state).toBe("over");
});

import { describe, expect, it } from "vitest";
import { ProblemError, type Trouble } from "../api/client";
import {
  about,
  ago,
  inOrder,
  nextToSend,
  orderAfter,
  outcome,
  patience,
  waitWords,
  type Press,
} from "./model";

const press = (id: string, order: number, more: Partial<Press> = {}): Press => ({
  id,
  person: "imre",
  personName: "Imre",
  kind: "fly.land",
  thing: "f1",
  at: 0,
  order,
  body: {},
  ...more,
});
const no = { title: "No", sentence: "No." };
const problem = (status: number, more: Partial<Trouble> = {}) =>
  new ProblemError({ type: "conflict", title: "T", status, detail: "D", ...more });

describe("what is sent next", () => {
  it("is the oldest of the person, whatever order they lie in", () => {
    const all = [press("b", 2), press("a", 1), press("c", 0, { person: "odile" })];
    expect(nextToSend(all, "imre")?.id).toBe("a");
    expect(nextToSend(all, "odile")?.id).toBe("c");
    expect(nextToSend(all, "bao")).toBeUndefined();
    expect(inOrder(all).map((p) => p.id)).toEqual(["c", "a", "b"]);
  });
  it("goes past what was refused", () => {
    expect(nextToSend([press("a", 1, { refused: no }), press("b", 2)], "imre")?.id).toBe("b");
  });
  it("holds back what belongs to something that was refused at its beginning, and nothing else", () => {
    const begun = press("a", 1, { opens: true, refused: no });
    expect(nextToSend([begun, press("b", 2)], "imre")).toBeUndefined();
    expect(nextToSend([begun, press("b", 2), press("c", 3, { thing: "f2" })], "imre")?.id).toBe("c");
    expect(nextToSend([press("a", 1, { opens: true }), press("b", 2)], "imre")?.id).toBe("a");
  });
  it("keeps the order of two presses in one millisecond, and of a clock that goes back", () => {
    const all: Press[] = [];
    for (const now of [1000, 1000, 1000, 900, 1001]) all.push(press(`p${all.length}`, orderAfter(all, now)));
    expect(inOrder(all).map((p) => p.id)).toEqual(["p0", "p1", "p2", "p3", "p4"]);
    expect(new Set(all.map((p) => p.order)).size).toBe(5);
  });
});

describe("how long ago", () => {
  it.each([
    [1000, 6500, 5.5],
    [6500, 1000, 0],
    [0, 8 * 86_400_000, 604800],
  ])("pressed at %d, now %d", (at, now, want) => expect(ago({ at }, now)).toBe(want));
});

describe("what an error means", () => {
  it.each([0, 401, 408, 425, 429, 500, 502, 503])("status %d waits", (s) =>
    expect(outcome(problem(s))).toBe("wait"),
  );
  it.each([400, 403, 404, 409, 413, 422])("status %d is a refusal", (s) =>
    expect(outcome(problem(s))).toEqual({ title: "T", sentence: "D" }),
  );
  it("waits when nothing was reached, whatever the status of a stranger", () => {
    expect(outcome(problem(404, { type: "unreachable" }))).toBe("wait");
  });
  it("waits while somebody else is signed in", () => {
    expect(outcome(problem(409, { type: "press-not-yours" }))).toBe("wait");
  });
  it("says the faults of fields once", () => {
    const e = problem(422, {
      fields: [
        { field: "a", sentence: "D" },
        { field: "b", sentence: "Enter b." },
      ],
    });
    expect(outcome(e)).toEqual({ title: "T", sentence: "D Enter b." });
  });
  it("goes past a press over which the server breaks down each time, and over no other", () => {
    const broken = problem(500, { type: "internal" });
    expect(outcome(broken, patience - 1)).toBe("wait");
    expect(outcome(broken, patience)).toMatchObject({ title: "T" });
    expect(outcome(problem(503, { type: "database-away" }), 99)).toBe("wait");
  });
  it("keeps what the program itself cannot send", () => {
    expect(outcome(new TypeError("x"))).not.toBe("wait");
  });
});

it("parts what waits from what was refused, and from what others pressed on this device", () => {
  const all = [
    press("b", 2),
    press("a", 1),
    press("c", 3, { refused: no }),
    press("d", 4, { thing: "f2" }),
    press("e", 5, { person: "odile" }),
  ];
  const ids = (x: Press[]) => x.map((p) => p.id);
  const { waiting, refused, others } = about(all, "f1", "imre");
  expect([ids(waiting), ids(refused), ids(others)]).toEqual([["a", "b"], ["c"], ["e"]]);
  expect(ids(about(all, "f1", "odile").waiting)).toEqual(["e"]);
  expect([waitWords(1), waitWords(3)]).toEqual(["1 press waits to be sent", "3 presses wait to be sent"]);
});

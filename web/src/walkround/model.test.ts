import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import type { Press } from "../outbox/model";
import {
  found,
  jobNow,
  nextOpen,
  openAt,
  openFor,
  packsFor,
  pressed,
  roundOf,
  saidOf,
  secondWanted,
  trendsAt,
  verdictOf,
  wayRound,
  withPresses,
  type Item,
  type Run,
  type RunSeen,
} from "./model";

const item = (id: string, more: Partial<Item> = {}) =>
  ({ id, station: id, title: id, kind: "look", ...more }) as Item;
const clear = { verdict: "clear", sentence: "Good.", against: "x" } as const;
const stop = { verdict: "stop", sentence: "Bad.", against: "x" } as const;
const run = (entries: Run["entries"] = []) =>
  ({
    id: "w",
    items: [item("a"), item("b"), item("c")],
    entries,
    missing: 3 - entries.length,
    verdict: "clear",
    completed_at: null,
    completed_by: "",
    abandoned: false,
  }) as unknown as Run;
const entry = (item_id: string, by = "Imre", judgement: Run["entries"][0]["judgement"] = clear) => ({
  item_id,
  value: { look: "ok" as const },
  judgement,
  by,
  at: "2026-06-10T16:00:00.000Z",
  others: [],
});
const at = "2026-06-10T17:00:00.000Z";
const press = (kind: string, body: unknown): Press => ({
  id: "p",
  person: "imre",
  personName: "Imre",
  kind,
  thing: "w",
  at: 0,
  order: 1,
  body,
});
const enter = (item_id: string, judgement?: Run["entries"][0]["judgement"]) =>
  press("walk.entry", { item_id, title: item_id, value: { look: "ok" }, judgement });

describe("a walk with what was pressed here", () => {
  it("has the entry, one item less is missing", () => {
    const w = pressed(run(), enter("b", clear), at);
    expect(w.entries).toMatchObject([{ item_id: "b", by: "Imre", at, judgement: clear }]);
    expect(w.missing).toBe(2);
  });
  it("replaces one's own entry and counts it once", () => {
    const w = pressed(run([entry("b")]), enter("b", stop), at);
    expect(w.entries).toMatchObject([{ judgement: stop, others: [] }]);
    expect(w.missing).toBe(2);
  });
  it("keeps what somebody else said beside it, and the worse counts", () => {
    const w = pressed(run([entry("b", "Tamsin", stop), entry("a"), entry("c")]), enter("b", clear), at);
    expect(w.entries[0]).toMatchObject({ by: "Imre", others: [{ by: "Tamsin", verdict: "stop" }] });
    expect(verdictOf(w)).toBe("stop");
    expect(found(w).map((e) => e.item_id)).toEqual(["b"]);
  });
  it("counts what one said oneself before no more", () => {
    const mine = { by: "Imre", verdict: "stop" as const, sentence: "Bad." };
    const known = { ...entry("b", "Tamsin", clear), others: [mine] };
    const w = pressed(run([known, entry("a"), entry("c")]), enter("b", clear), at);
    expect(w.entries[0]!.others.map((o) => o.by)).toEqual(["Tamsin"]);
    expect(verdictOf(w)).toBe("clear");
  });
  it("is not complete before everything is entered, and then with the worst", () => {
    expect(pressed(run(), press("walk.complete", {}), at).completed_at).toBeNull();
    const w = withPresses(
      run([entry("a")]),
      [enter("b", { ...stop, verdict: "watch" }), enter("c", clear), press("walk.complete", {})],
      () => at,
    );
    expect(w).toMatchObject({ completed_at: at, completed_by: "Imre", verdict: "watch", missing: 0 });
  });
  it("is of unknown verdict while an entry is not judged", () => {
    const w = pressed(run([entry("a")]), enter("b"), at);
    expect(verdictOf(w)).toBeUndefined();
    expect(found(w).map((e) => e.item_id)).toEqual(["b"]);
  });
  it("changes no more when it has ended", () => {
    const ended = { ...run([entry("a"), entry("b"), entry("c")]), completed_at: at };
    expect(pressed(ended, enter("a", stop), at)).toBe(ended);
  });
});

describe("what two people say", () => {
  const two = { ...run(), items: [item("a", { hands: 2 }), item("b")] } as Run;
  const say = (w: RunSeen, who: string, id: string) =>
    pressed(
      w,
      {
        ...press("walk.entry", { item_id: id, title: id, value: { look: "ok" }, judgement: clear }),
        personName: who,
      },
      at,
    );
  it("is open for the second when the first has said it", () => {
    const w = say({ ...two, missing: 2 }, "Imre", "a");
    expect(w.missing).toBe(2);
    expect(openFor(w, "Imre").map((i) => i.id)).toEqual(["b"]);
    expect(openFor(w, "Bao").map((i) => i.id)).toEqual(["a", "b"]);
    expect(secondWanted(w).map((i) => i.id)).toEqual(["a"]);
    expect(say(w, "Imre", "a").missing).toBe(2);
  });
  it("is done when the second has", () => {
    const w = say(say({ ...two, missing: 2 }, "Imre", "a"), "Bao", "a");
    expect(w.missing).toBe(1);
    expect(secondWanted(w)).toEqual([]);
    expect(openFor(w, "Imre").map((i) => i.id)).toEqual(["b"]);
  });
});

describe("the next open item", () => {
  it.each([
    [["a"], 0, 1],
    [["a", "b"], 2, 2],
    [["b", "c"], 2, 0],
    [["a", "b", "c"], 2, undefined],
  ] as const)("with %j done, after %d", (done, after, want) =>
    expect(nextOpen(run(done.map((d) => entry(d))), "Imre", after)).toBe(want),
  );
  it("takes what is being entered for done", () => {
    expect(nextOpen(run(), "Imre", 0, "b")).toBe(2);
  });
  it("goes to the stations of the marks too", () => {
    const corner = item("corner", {
      kind: "group",
      marks: [
        { id: "m", station: "motor-1", title: "M" },
        { id: "a", station: "corner", title: "A" },
      ],
    });
    expect(wayRound([corner, item("frame")])).toEqual(["corner", "motor-1", "frame"]);
  });
  it("says of a group's stations only what is wrong there", () => {
    const corner = item("corner", {
      kind: "group",
      marks: [
        { id: "m", station: "motor-1", title: "M" },
        { id: "a", station: "arm-1", title: "A" },
      ],
    });
    const entry = { item_id: "corner", value: { look: "defect", wrong: ["m"] }, judgement: stop } as never;
    expect(saidOf(corner, entry, "motor-1")).toBe("stop");
    expect(saidOf(corner, entry, "arm-1")).toBe("clear");
    expect(saidOf(item("x"), { value: {}, judgement: stop } as never, "x")).toBe("stop");
  });
  it("goes round each station once", () => {
    expect(wayRound([item("a"), item("b"), item("c", { station: "a" })])).toEqual(["a", "b"]);
  });
});

describe("before a walk", () => {
  const round = (key: Schemas["RoundKey"]) =>
    ({ key, title: key, when: "", packs: true, check: true }) as Schemas["Round"];

  it("opens the round that was asked for, where the list has it", () => {
    const rounds = [round("walkround"), round("hover")];
    expect(roundOf(rounds, "hover")).toBe("hover");
    expect(roundOf(rounds, "bench")).toBe("walkround");
    expect(roundOf(rounds, null)).toBe("walkround");
    expect(roundOf([], null)).toBe("walkround");
  });

  it("offers the packs that fly in it, the fullest first", () => {
    const pack = (label: string, more: Partial<Schemas["Pack"]>) =>
      ({ label, state: "charged", fits: ["Quad"], fitted_to: "", percent: null, ...more }) as Schemas["Pack"];
    const d = { type: { profile: { name: "Quad" } }, aircraft: { name: "Q1" } } as Schemas["AircraftDetail"];
    const all = [
      pack("empty", { percent: 20 }),
      pack("full", { percent: 99 }),
      pack("flown", { state: "flown" }),
      pack("in it", { state: "flown", fitted_to: "Q1", percent: 60 }),
      pack("other", { fits: ["Hexa"] }),
    ];
    expect(packsFor(all, d).map((p) => p.label)).toEqual(["full", "in it", "empty"]);
  });

  it("belongs to the job whose window it is, from two hours before", () => {
    const job = (from: string, more = {}) => ({
      state: "planned" as const,
      aircraft: ["Q1"],
      from: `2026-06-10T${from}Z`,
      to: "2026-06-10T12:00:00Z",
      ...more,
    });
    const now = Date.parse("2026-06-10T08:00:00Z");
    expect(jobNow([job("09:59:00")], "Q1", now)).toBeTruthy();
    expect(jobNow([job("10:01:00")], "Q1", now)).toBeUndefined();
    expect(jobNow([job("07:00:00", { to: "2026-06-10T08:00:00Z" })], "Q1", now)).toBeUndefined();
    expect(jobNow([job("07:00:00", { state: "done" as const })], "Q1", now)).toBeUndefined();
    expect(jobNow([job("07:00:00")], "Q2", now)).toBeUndefined();
  });
});

describe("motors over time", () => {
  const drift = (motor: number, more: object = {}) => ({
    motor,
    known: true,
    before: 0,
    now: 5,
    deviates: [],
    verdict: "watch" as const,
    sentence: `Motor ${motor} drifts.`,
    ...more,
  });
  const t = {
    warmth: [drift(1), drift(2, { verdict: "clear" }), drift(3, { known: false })],
    output: [drift(2)],
    feel: [
      { station: "motor-2", walks: 40, odd: 2, last: "Grit." },
      { station: "motor-1", walks: 40, odd: 0, last: "" },
    ],
    notes: [],
    flights: 40,
  };
  const corner = (n: number) =>
    item(`corner-${n}`, {
      station: `arm-${n}`,
      kind: "group",
      marks: [{ id: "m", station: `motor-${n}`, title: "Motor" }],
    });
  it("tells at a corner what stands out of its motor alone", () => {
    expect(trendsAt(t, corner(1)).map((s) => s.words)).toEqual(["Motor 1 drifts."]);
    expect(trendsAt(t, corner(2)).map((s) => s.words)).toEqual([
      "Motor 2 drifts.",
      "Motor 2 was odd on 2 of 40 walks, last: Grit.",
    ]);
  });
  it("is silent where too little is known, and at other places", () => {
    expect(trendsAt(t, corner(3))).toEqual([]);
    expect(trendsAt(t, item("bay"))).toEqual([]);
  });
});

it("tells at an item what is open at its places, and only what is open", () => {
  const d = (id: string, station: string, closed_at: string | null = null) =>
    ({ id, station, closed_at }) as Schemas["Defect"];
  const corner = item("corner-1", {
    station: "arm-1",
    marks: [{ id: "p", station: "propeller-1", title: "Propeller" }],
  });
  const all = [
    d("a", "arm-1"),
    d("b", "propeller-1"),
    d("c", "propeller-2"),
    d("d", "arm-1", "2026-06-10T09:00:00Z"),
  ];
  expect(openAt(all, corner).map((x) => x.id)).toEqual(["a", "b"]);
});

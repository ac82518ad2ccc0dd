import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { inOrder } from "../parts/lists";
import {
  daysLeft,
  defectOrders,
  dueOrders,
  openedWords,
  stockOrders,
  together,
  wantedDefect,
  wantedTask,
  type DueLine,
} from "./model";

const line = (o: Partial<DueLine>): DueLine => ({
  aircraft_id: "a",
  aircraft: "Dray One",
  station: "1",
  label: "Motor 1",
  kind: "motor",
  serial: "",
  verdict: "clear",
  sentence: "",
  fraction: 0,
  due_on: null,
  forecast: false,
  by: "",
  what: "part",
  task_id: "",
  order_id: null,
  deferrable: false,
  ...o,
});

it("puts parts that fall due together into one line, and nothing else", () => {
  const g = together([
    line({ station: "1" }),
    line({ station: "2" }),
    line({ station: "3", due_on: "2026-06-01" }),
    line({ station: "4", aircraft_id: "b" }),
  ]);
  expect(g.map((x) => x.map((i) => i.station))).toEqual([["1", "2"], ["3"], ["4"]]);
});

it("counts days to the next whole day, and none without a date", () => {
  const now = Date.parse("2026-05-31T12:00:00Z");
  expect(daysLeft(line({ due_on: "2026-06-01" }), now)).toBe(1);
  expect(daysLeft(line({ due_on: "2026-05-31" }), now)).toBe(-0);
  expect(daysLeft(line({ due_on: null }), now)).toBeUndefined();
});

it("orders what falls due by aircraft and by life used", () => {
  const g = together([
    line({ label: "Motor 2", aircraft: "Tally W", aircraft_id: "b", fraction: 0.2 }),
    line({ label: "Motor 10", fraction: 0.9 }),
  ]);
  const names = (key: string) => inOrder(g, dueOrders, key).map((x) => x[0]!.label);
  expect(names("")).toEqual(["Motor 2", "Motor 10"]);
  expect(names("aircraft")).toEqual(["Motor 10", "Motor 2"]);
  expect(names("life")).toEqual(["Motor 10", "Motor 2"]);
  expect(names("what")).toEqual(["Motor 2", "Motor 10"]);
});

it("orders defects with the worst first and stock with what must be ordered first", () => {
  const defect = (severity: Schemas["Verdict"]) => ({ severity }) as Schemas["Defect"];
  expect(
    inOrder([defect("watch"), defect("clear"), defect("stop")], defectOrders, "worst").map((d) => d.severity),
  ).toEqual(["stop", "watch", "clear"]);
  const shelf = (verdict: Schemas["Verdict"]) => ({ order: { verdict } }) as Schemas["StockLine"];
  expect(inOrder([shelf("clear"), shelf("stop")], stockOrders, "").map((l) => l.order.verdict)).toEqual([
    "stop",
    "clear",
  ]);
});

it("wants an order only for a task or a defect that has none", () => {
  expect(wantedTask(line({ what: "part" }))).toBeUndefined();
  expect(wantedTask(line({ what: "task", task_id: "t", order_id: "o" }))).toBeUndefined();
  expect(wantedTask(line({ what: "task", task_id: "t", label: "Screws" }))).toEqual({
    key: "a-t",
    name: "Dray One: Screws",
    aircraft: "a",
    task: "t",
  });
  const d = {
    id: "d",
    aircraft: "Dray One",
    aircraft_id: "a",
    title: "Crack",
    order_id: null,
    closed_at: null,
  };
  expect(wantedDefect(d as Schemas["Defect"])?.defect).toBe("d");
  expect(wantedDefect({ ...d, order_id: "o" } as Schemas["Defect"])).toBeUndefined();
  expect(wantedDefect({ ...d, closed_at: "x" } as Schemas["Defect"])).toBeUndefined();
});

it("tells what became of each", () => {
  expect(openedWords([])).toEqual({ done: "", refused: [], orders: [] });
  expect(
    openedWords([
      { name: "Dray One: Screws", order: "o1" },
      { name: "Tally W: Servos", refused: "Work on this is open already." },
    ]),
  ).toEqual({
    done: "1 work order opened.",
    refused: ["Tally W: Servos: Work on this is open already."],
    orders: ["o1"],
  });
});

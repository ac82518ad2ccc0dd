import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { sortedFleet } from "./model";

const entry = (name: string, verdict: string, next_due_fraction: number) =>
  ({ aircraft: { name }, verdict, next_due_fraction }) as unknown as Schemas["FleetEntry"];
const fleet = [entry("Dray 10", "clear", 0.2), entry("Dray 2", "stop", 0.9), entry("Tally", "clear", 1.1)];

it.each([
  [null, ["Dray 2", "Dray 10", "Tally"]],
  ["name", ["Dray 2", "Dray 10", "Tally"]],
  ["worst", ["Dray 2", "Dray 10", "Tally"]],
  ["due", ["Tally", "Dray 2", "Dray 10"]],
])("orders the fleet %s", (by, want) =>
  expect(sortedFleet(fleet, by).map((e) => e.aircraft.name)).toEqual(want),
);

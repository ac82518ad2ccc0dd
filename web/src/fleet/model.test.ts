import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import type { Units } from "../parts/units";
import { changedAircraft, newAircraft, shownMass, sortedFleet } from "./model";

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

const pounds = {
  value: (_: string, v: number) => v / 0.45359237,
  toBase: (_: string, v: number) => v * 0.45359237,
  label: () => "lb",
} as unknown as Units;

it("keeps a mass to the last digit while nobody touches it, and takes it in the crew's units", () => {
  const typed = {
    name: "Dray One",
    registration: "QB-101",
    registration_expires: "",
    active: true,
    mass: shownMass(68.5, pounds),
    weighed_on: "2026-05-01",
  };
  const form = changedAircraft(pounds, 68.5);
  expect(form.parse(typed)).toMatchObject({ mass_kg: 68.5, registration_expires: null });
  expect(form.parse({ ...typed, mass: "150" }).mass_kg).toBeCloseTo(68.039, 3);
  expect(form.parse({ ...typed, mass: "" }).mass_kg).toBeNull();
});

it("takes 50 g to a tonne, says the fault at the mass, and never makes one of nothing", () => {
  const typed = {
    type_key: "dray-30",
    name: "Dray Three",
    serial: "1",
    registration: "",
    registration_expires: "",
    fit_new_parts: true,
    weighed_on: "",
  };
  const read = (mass: string) => newAircraft(pounds).safeParse({ ...typed, mass });
  expect(read("").data?.mass_kg).toBeNull();
  for (const mass of ["0.11", "2205", "heavy"])
    expect(
      read(mass).error?.issues.map((i) => i.path[0]),
      mass,
    ).toEqual(["mass"]);
  for (const mass of ["0.12", "2204"]) expect(read(mass).success, mass).toBe(true);
});

import { describe, expect, it } from "vitest";
import { crewForm } from "./model";

const good = {
  crew_name: " Quillback ",
  zone: "America/Los_Angeles",
  tile_url: "",
  head_to: "",
  keep_places: false,
  units: { length: "m", speed: "m/s", mass: "kg", temperature: "degC", volume: "L" },
};
const faults = (v: unknown) => crewForm.safeParse(v).error?.issues.map((i) => i.path.join(".")) ?? [];

describe("what holds for the crew", () => {
  it("is taken with its edges cut", () => {
    expect(crewForm.parse(good).crew_name).toBe("Quillback");
    expect(faults({ ...good, tile_url: "https://tiles.example/{z}/{x}/{y}.png" })).toEqual([]);
  });
  it("names what is missing or cannot be used", () => {
    expect(faults({ ...good, crew_name: " ", zone: "", tile_url: "https://tiles.example/" })).toEqual([
      "crew_name",
      "zone",
      "tile_url",
    ]);
  });
});

import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { drawings } from "./DrillPicture";

it("there is a drawing for every picture that a drill may show, and for no other", () => {
  const core = readFileSync("../core/checks/drill.go", "utf8");
  const keys = [...core.matchAll(/\{"([a-z]+-[a-z]+)", "/g)].map((m) => m[1]);
  expect(keys.length).toBeGreaterThan(8);
  expect([...drawings].sort()).toEqual([...keys].sort());
});

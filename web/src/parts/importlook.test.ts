import { expect, it } from "vitest";
import { groups, unread } from "./importlook";

const f = (name: string, kind: string, guessed: boolean, ...u: string[]) => ({
  name,
  kind,
  shape: "area",
  guessed,
  unread: u,
});

it("puts what was guessed first, and names everything", () => {
  const list = [f("A", "no-go", false), f("", "area", true, "zone"), f("B", "no-go", false, "style", "zone")];
  expect(groups(list)).toEqual([
    { kind: "area", shape: "area", guessed: true, names: ["without a name"] },
    { kind: "no-go", shape: "area", guessed: false, names: ["A", "B"] },
  ]);
  expect(unread(list)).toEqual(["style", "zone"]);
  expect(groups([])).toEqual([]);
});

import { expect, it } from "vitest";
import { practiceForm } from "./model";

const flown = {
  type_key: "dray-30",
  phase: "loaded",
  packs: "2",
  landings: "",
  nose_in: true,
  flown_on: "2026-06-09",
  note: "",
  pin: "1470",
};

it("takes what was practised; no landings typed are none", () => {
  expect(practiceForm.parse(flown)).toMatchObject({ packs: 2, landings: 0, phase: "loaded" });
});

it("says parts of packs and of landings at their field", () => {
  const r = practiceForm.safeParse({ ...flown, packs: "1.5", landings: "101" });
  expect(r.error?.issues.map((i) => i.path[0])).toEqual(["packs", "landings"]);
});

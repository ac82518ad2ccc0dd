import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { remedyPath, remedyWords } from "./remedy";

const at = (kind: Schemas["NextStep"]["kind"], id = "x", aircraft = "a") =>
  remedyPath({ kind, id }, aircraft);

it("leads to where the thing is done", () => {
  expect(at("flight")).toBe("/fly/x");
  expect(at("gate")).toBe("/gate/a");
  expect(at("walkround")).toBe("/walk/start/a?kind=walkround");
  expect(at("propellers")).toBe("/fleet/a?fit=propellers");
  expect(at("return")).toBe("/fleet/a?act=return");
  expect(at("mass")).toBe("/fleet/a?act=edit&at=mass");
  expect(at("gear", "g")).toBe("/tonight?at=gear-g");
  expect(at("pack-read")).toBe("/packs/x?at=reading");
  expect(at("station", "a/motor-1")).toBe("/fleet/a?station=motor-1");
  expect(at("task", "a/screws")).toBe("/workshop/orders/new?aircraft=a&task=screws");
  expect(at("job")).toBe("/jobs/x?change=1");
  expect(at("site-home")).toBe("/sites/x?tab=home&aircraft=a");
  expect(at("site-home", "x", "")).toBe("/sites/x?tab=home");
  expect(at("documents", "")).toBe("/crew?tab=papers");
  expect(at("choose-packs", "", "")).toBeUndefined();
});

it("says what is done, and to what", () => {
  expect(remedyWords({ kind: "pack-look", id: "x", name: "B1" })).toBe("Look at B1");
  expect(remedyWords({ kind: "pack-read", id: "x", name: "B1" })).toBe("Read B1");
  expect(remedyWords({ kind: "walkround", id: "x", name: "Dray One" })).toBe("Walk round Dray One");
  expect(remedyWords({ kind: "station", id: "x" })).toBe("Open the station");
  expect(remedyWords({ kind: "take-off" })).toBe("Released: take off");
  expect(remedyWords({ kind: "mass", id: "a" })).toBe(remedyWords({ kind: "job-mass", id: "j" }));
});

import { expect, it } from "vitest";
import { kitForm } from "./kit";
import { dayAgo, datumOf, ended, takeOffPlaces, usualDatum, withdrawal } from "./model";

const f = (id: string, kind: string, name: string, main?: boolean) => ({
  feature: { id, kind: kind as "take-off", name, main },
});

it("puts the main take-off place first, then by name", () => {
  const got = takeOffPlaces([
    f("a", "route", "R"),
    f("b", "take-off", "Yard"),
    f("c", "take-off", ""),
    f("d", "take-off", "Zaun", true),
  ]);
  expect(got.map((p) => p.name)).toEqual(["Zaun", "Take-off place", "Yard"]);
});

it("counts a sprayer's height from the ground, unless somebody chose", () => {
  expect(usualDatum("spraying")).toBe("ground");
  expect(usualDatum("inspection")).toBe("take-off");
  expect(datumOf("", "spraying")).toBe("above the ground");
  expect(datumOf("sea", "spraying")).toBe("above sea level");
});

it("takes a decision back only with a reason that says something", () => {
  expect(withdrawal.safeParse({ reason: "  a trailer stands there " }).data?.reason).toBe(
    "a trailer stands there",
  );
  for (const reason of ["", "  ", " ab ", "x".repeat(401)])
    expect(withdrawal.safeParse({ reason }).success).toBe(false);
});

it("ends somebody's words with one mark", () => {
  expect(["room", "room.", " room. ", "sure?"].map(ended)).toEqual(["room.", "room.", "room.", "sure?"]);
});

it("asks for the jobs of now by the full hour", () => {
  const at = Date.UTC(2026, 5, 10, 7, 59, 59);
  expect(dayAgo(at)).toBe("2026-06-09T07:00:00.000Z");
  expect(dayAgo(at + 1000)).toBe("2026-06-09T08:00:00.000Z");
});

it("takes something else along with its name, one or as many as are counted", () => {
  expect(kitForm.parse({ label: " Rope ", quantity: "" })).toEqual({ label: "Rope", quantity: 0 });
  expect(kitForm.parse({ label: "Stakes", quantity: "12" }).quantity).toBe(12);
  expect(kitForm.safeParse({ label: " ", quantity: "1.5" }).error?.issues.map((i) => i.path[0])).toEqual([
    "label",
    "quantity",
  ]);
});

import { expect, it } from "vitest";
import { deferForm, partForm, stepReading, stockForm, takeForm } from "./forms";

const at = (r: { success: boolean; error?: { issues: { path: PropertyKey[] }[] } }) =>
  r.error?.issues.map((i) => i.path.join(".")) ?? [];
const line = {
  name: "Cable ties",
  type_key: "dray-30",
  kind: "",
  quantity: "40",
  minimum: "10",
  delivery_days: "7",
  price: "2,50",
  source: "",
};

it("counts a line of the stock here, or on the shelf where it has serial numbers", () => {
  expect(stockForm.parse(line)).toMatchObject({ quantity: 40, minimum: 10, price_cents: 250, type_key: "" });
  expect(stockForm.parse({ ...line, kind: "motor", quantity: "of no use" })).toMatchObject({
    quantity: 0,
    kind: "motor",
    type_key: "dray-30",
  });
});

it("says each fault of a line at its own field", () => {
  expect(at(stockForm.safeParse({ ...line, quantity: "4.5" }))).toEqual(["quantity"]);
  expect(at(stockForm.safeParse({ ...line, quantity: "" }))).toEqual(["quantity"]);
  expect(at(stockForm.safeParse({ ...line, minimum: "10001", delivery_days: "731", price: "x" }))).toEqual([
    "minimum",
    "delivery_days",
    "price",
  ]);
});

it("takes a part without a price, and no price that is none", () => {
  const part = {
    type_key: "dray-30",
    kind: "motor",
    serial: "M1",
    batch: "",
    source: "maker" as const,
    price: "",
  };
  expect(partForm.parse(part).price).toBeNull();
  expect(at(partForm.safeParse({ ...part, price: "free" }))).toEqual(["price"]);
});

it("takes at least one from the shelf, and names what", () => {
  expect(takeForm.parse({ line_id: "a", quantity: "1" }).quantity).toBe(1);
  expect(at(takeForm.safeParse({ line_id: "", quantity: "0" }))).toEqual(["line_id", "quantity"]);
});

it("puts off by whole days, 1 to 365", () => {
  for (const days of ["1", "365"]) expect(deferForm.parse({ days, reason: "", pin: "" }).days).toBe(+days);
  for (const days of ["0", "366", "1.5", ""])
    expect(at(deferForm.safeParse({ days, reason: "", pin: "" })), days).toEqual(["days"]);
});

it("asks for the quantity of a step by its name", () => {
  expect(stepReading("torque").parse("-0,4")).toBe(-0.4);
  expect(stepReading("torque").safeParse("").error?.issues[0]?.message).toBe("Enter the torque.");
});

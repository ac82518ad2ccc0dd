import { describe, expect, it } from "vitest";
import { addForm, correctForm, fitting } from "./form";

const good = {
  labels: "L1 to L8",
  charged: false,
  serials: "",
  chemistry: "LiHV",
  cells: "6",
  capacity_mah: "12000",
  cycles: "0",
};
const faults = (r: ReturnType<typeof addForm.safeParse> | ReturnType<typeof correctForm.safeParse>) =>
  r.success ? [] : r.error.issues.map((i) => `${i.path.join(".")}: ${i.message}`);

describe("packs in their forms", () => {
  it("reads numbers as people type them", () => {
    expect(addForm.parse(good)).toMatchObject({
      cells: 6,
      capacity_mah: 12000,
      cycles: 0,
      charged: false,
      serials: [],
    });
    expect(faults(addForm.safeParse({ ...good, cells: "6,5" }))).toEqual(["cells: Enter a whole number."]);
    expect(faults(addForm.safeParse({ ...good, cells: "0", cycles: "" }))).toHaveLength(2);
    expect(faults(addForm.safeParse({ ...good, capacity_mah: "12.000.000" }))[0]).toContain("thousands");
    expect(faults(addForm.safeParse({ ...good, labels: " " }))[0]).toContain("like L1 to L8");
  });
  it("takes serial numbers one a line, or with commas", () => {
    expect(addForm.parse({ ...good, charged: false, serials: "S-1\n S-2 ,S-3;\n" }).serials).toEqual([
      "S-1",
      "S-2",
      "S-3",
    ]);
  });
  it("asks for label and serial number of a pack that is put right", () => {
    const one = { ...good, label: "L1", serial: "" };
    expect(faults(correctForm.safeParse(one))).toEqual(["serial: Enter the maker's serial number."]);
    expect(correctForm.parse({ ...one, serial: " S-1 " }).serial).toBe("S-1");
  });
  it("fills in what a type flies with", () => {
    const packs = { chemistry: "Li-ion", cells: 7, capacity_mah: 9000 };
    expect(fitting({ packs } as Parameters<typeof fitting>[0])).toEqual({
      chemistry: "Li-ion",
      cells: "7",
      capacity_mah: "9000",
    });
  });
});

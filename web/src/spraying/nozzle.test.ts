import { describe, expect, it } from "vitest";
import { keyOf, nozzleForm, typedNozzle, type Nozzle } from "./nozzle";

const fan: Nozzle = {
  id: "0198c0de-0000-7000-8000-000000000001",
  key: "fan-020",
  name: "Flat fan 020",
  least_l_min: 0.46,
  most_l_min: 1.02,
  least_bar: 1,
  most_bar: 5,
  droplets: "medium",
  active: true,
  version: 3,
};

describe("a kind of nozzle", () => {
  it("comes out of the form as it went in", () => {
    expect(nozzleForm(fan).parse(typedNozzle(fan))).toEqual(fan);
  });

  it("keeps its key when it is named anew, and gets one from its first name", () => {
    const typed = { ...typedNozzle(fan), name: "Flat fan, worn set" };
    expect(nozzleForm(fan).parse(typed).key).toBe("fan-020");
    expect(nozzleForm({ id: fan.id, key: "", version: 0 }).parse(typed).key).toBe("flat-fan-worn-set");
  });

  it.each([["Düse 03"], ["***"], ["a".repeat(60)]])("has a key that the server takes: %s", (name) => {
    expect(keyOf(name)).toMatch(/^[a-z0-9]+(-[a-z0-9]+)*$/);
    expect(keyOf(name).length).toBeLessThanOrEqual(40);
  });

  it("is refused at the field that is wrong", () => {
    const typed = { ...typedNozzle(fan), most_l_min: "0.3", least_bar: "", most_bar: "60" };
    const bad = nozzleForm(fan).safeParse({ ...typed, name: " " });
    expect(bad.success).toBe(false);
    const at = bad.error!.issues.map((i) => i.path[0]);
    expect(at).toEqual(expect.arrayContaining(["name", "least_bar", "most_bar"]));
    const under = nozzleForm(fan).safeParse({ ...typedNozzle(fan), most_l_min: "0.3", most_bar: "0.5 bar" });
    expect(under.error!.issues.map((i) => i.path[0])).toEqual(["most_l_min", "most_bar"]);
  });
});

import { readdirSync, readFileSync } from "node:fs";
import { get, set } from "react-hook-form";
import { describe, expect, it } from "vitest";
import { allFigures, has } from "./figures";
import {
  blankTyped,
  equipmentKinds,
  fieldOf,
  keyFor,
  profileOf,
  stillToDo,
  typedOf,
  typeForm,
  wrongFigure,
  type Profile,
  type Shown,
} from "./model";

const metric: Shown = {
  value: (_, v) => v,
  toBase: (_, v) => v,
  label: (q) => ({ speed: "m/s", mass: "kg", length: "m", volume: "L", temperature: "°C" })[q],
};
const feet: Shown = {
  value: (q, v) => (q === "length" ? v / 0.3048 : q === "mass" ? v / 0.45359237 : v),
  toBase: (q, v) => (q === "length" ? v * 0.3048 : q === "mass" ? v * 0.45359237 : v),
  label: (q) => ({ speed: "m/s", mass: "lb", length: "ft", volume: "L", temperature: "°C" })[q],
};

const dir = "../internal/fleet/shipped/";
const shipped = readdirSync(dir).map((f) => JSON.parse(readFileSync(dir + f, "utf8")) as Profile);

/** Without what says nothing: zero, and empty parts. */
function bare(v: unknown): unknown {
  if (Array.isArray(v)) return v.map(bare);
  if (typeof v !== "object" || v === null) return v;
  return Object.fromEntries(
    Object.entries(v)
      .map(([k, x]) => [k, bare(x)] as const)
      .filter(
        ([k, x]) =>
          x !== 0 &&
          !(k === "count" && x === 1) &&
          !(typeof x === "object" && Object.keys(x as object).length === 0),
      ),
  );
}

describe("a type in its form", () => {
  it("comes back as it was, for every shipped type", () => {
    expect(shipped.length).toBe(6);
    for (const t of shipped) {
      const back = profileOf(typedOf(t, metric), t, t.version, metric);
      const spots = (p: Profile) =>
        bare({ ...p, balance: p.balance && { ...p.balance, empty_kg: p.balance.empty_kg } });
      expect(spots(back), t.key).toEqual(spots(t));
    }
  });
  it("is typed in the crew's units and kept in base units", () => {
    for (const t of shipped) {
      const typed = typedOf(t, feet);
      const back = profileOf(typed, t, 1, feet);
      for (const f of allFigures.filter((x) => has(x, t.geometry.kind)))
        expect(Number(get(back, f.path) ?? 0), `${t.key} ${f.path}`).toBe(Number(get(t, f.path) ?? 0));
    }
    const quad = shipped.find((t) => t.key === "lantern-4")!;
    expect(Number(get(typedOf(quad, feet).figures, "limits.takeoff_mass_kg"))).toBeCloseTo(16.53, 1);
  });
  it("loses what another layout does not have", () => {
    const v = shipped.find((t) => t.key === "tally-v")!;
    const back = profileOf({ ...typedOf(v, metric), kind: "multirotor", tail: "v" }, v, 2, metric);
    expect(back.geometry).toEqual({ kind: "multirotor", rotors: 4, arm_m: 0.62, rotor_diameter_m: 0.4 });
    expect(back.limits.crosswind_ms).toBeUndefined();
  });
  it("asks for figures that only the maker knows, and takes the others", () => {
    const faults = (t: unknown) => {
      const r = typeForm(metric).safeParse(t);
      return r.success ? [] : r.error.issues.map((i) => i.path.join("."));
    };
    const t = { ...blankTyped(metric), name: "Kite", key: "kite" };
    expect(faults(t)).toContain("figures.limits.wind_ms");
    expect(faults(t)).not.toContain("figures.limits.climb_ms");
    expect(faults(t)).not.toContain("figures.limits.land_by_percent");
    for (const f of allFigures) if (has(f, t.kind) && !f.optional) set(t.figures, f.path, "12");
    expect(faults(t)).toEqual([]);
    expect(faults({ ...t, key: "Kite 4" })).toEqual(["key"]);
    expect(faults({ ...t, unfold: "one, two" })).toEqual(["unfold"]);
  });
  it("drops nothing that cannot be read, and says it at its field", () => {
    const quad = shipped.find((t) => t.key === "lantern-4")!;
    const t = typedOf(quad, metric);
    const bad = {
      ...t,
      range_m: "far",
      wear: { ...t.wear, motor: { ...t.wear.motor!, hours: "lots", months: "2,5" } },
      equipment: [{ kind: "light", at: "frame", count: "two" }],
    };
    const r = typeForm(metric).safeParse(bad);
    expect(r.success ? [] : r.error.issues.map((i) => i.path.join(".")).sort()).toEqual([
      "equipment.0.count",
      "range_m",
      "wear.motor.hours",
      "wear.motor.months",
    ]);
    expect(typeForm(metric).safeParse(t).success).toBe(true);
    const half = structuredClone(t);
    set(half.figures, "balance.pack_kg", "");
    expect(typeForm(metric).safeParse(half).error?.issues[0]?.path.join(".")).toBe("figures.balance.pack_kg");
  });
  it("knows the kinds of parts that the core knows", () => {
    const core = readFileSync("../core/airframe/positions.go", "utf8");
    const kinds = /EquipmentKinds = \[\]string\{([^}]*)\}/.exec(core)![1]!;
    expect(equipmentKinds).toEqual(kinds.split(",").map((k) => k.trim().replaceAll('"', "")));
  });
  it("reads figures as people type them", () => {
    const wind = allFigures.find((f) => f.path === "limits.wind_ms")!;
    const cells = allFigures.find((f) => f.path === "packs.cells")!;
    expect(wrongFigure(wind, "9,5", metric)).toBe("");
    expect(wrongFigure(wind, "strong", metric)).toContain("not a number");
    expect(wrongFigure(wind, "", metric)).toContain("maker");
    expect(wrongFigure(cells, "6.5", metric)).toContain("whole");
  });
  it("finds the field of what the server names", () => {
    expect(fieldOf("limits.wind_ms")).toBe("figures.limits.wind_ms");
    expect(fieldOf("packs.chemistry")).toBe("chemistry");
    expect(fieldOf("key")).toBe("key");
  });
  it("says what is left to do in the words of the form", () => {
    const t = blankTyped(metric);
    const w = { field: "limits.wind_ms", sentence: "It must be 0.5 to 40 m/s, not 0." };
    expect(stillToDo(w, t)).toBe("Wind, steady: enter it.");
    set(t.figures, "limits.wind_ms", "99");
    expect(stillToDo(w, t)).toContain("It must be");
    expect(stillToDo({ field: "equipment", sentence: "No." }, t)).toBe("equipment: No.");
  });
  it("makes a key of a name", () => {
    expect(keyFor("  Älter Kite 4 / S ")).toBe("a-lter-kite-4-s");
    expect(keyFor("!!!")).toBe("");
  });
});

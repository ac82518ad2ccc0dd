import { QueryClient } from "@tanstack/react-query";
import { describe, expect, it } from "vitest";
import { keys } from "./keys";
import { concerned, keysOf, wrote } from "./touched";

describe("what looks again after a write", () => {
  it("is what shows it, and nothing else", async () => {
    const qc = new QueryClient();
    qc.setQueryData(keys.packs, "packs");
    qc.setQueryData(keys.pack("p"), "pack");
    qc.setQueryData(keys.log({}), "log");
    await wrote(qc, "pack_readings");
    const old = (key: readonly unknown[]) => qc.getQueryState(key)?.isInvalidated;
    expect([old(keys.packs), old(keys.pack("p")), old(keys.log({}))]).toEqual([true, true, false]);
  });
  it("is nothing for a table that nobody shows", () => {
    expect(keysOf(["goose_db_version", "toString"]).size).toBe(0);
  });
  it("names only keys that there are", () => {
    const made = new Set(
      Object.values(keys).map(
        (k) =>
          (typeof k === "function" ? (k as (...a: never[]) => readonly unknown[])(...([] as never[])) : k)[0],
      ),
    );
    for (const [table, firsts] of Object.entries(concerned))
      for (const first of firsts) expect(made.has(first), `${table}: ${first}`).toBe(true);
  });
});

import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { firmwareRows } from "./firmware";

const at = "2026-06-10T16:00:00Z";
const of = (f: Partial<Schemas["AircraftFirmware"]>) =>
  firmwareRows({ installed: [], findings: [], ...f } as Schemas["AircraftFirmware"]);
const have = (component: string, version: string) => ({ component, version, at, by: "Rhea" });

describe("firmware", () => {
  it("shows what is installed where nothing was tested together, without calling it clear", () => {
    const rows = of({ installed: [have("aircraft", "2.8.4")] as Schemas["AircraftFirmware"]["installed"] });
    expect(rows).toHaveLength(1);
    expect(rows[0]).toMatchObject({ component: "aircraft", tested: undefined, verdict: undefined });
  });
  it("holds each component against the combination", () => {
    const rows = of({
      installed: [have("aircraft", "2"), have("app", "4.7")] as Schemas["AircraftFirmware"]["installed"],
      set: {
        version: 1,
        versions: { aircraft: "2", app: "4.6", pack: "1" },
      } as unknown as Schemas["AircraftFirmware"]["set"],
      findings: [
        { component: "app", verdict: "stop" },
        { component: "pack", verdict: "watch" },
      ] as Schemas["AircraftFirmware"]["findings"],
    });
    expect(rows.map((r) => [r.component, r.verdict])).toEqual([
      ["aircraft", "clear"],
      ["pack", "watch"],
      ["app", "stop"],
    ]);
  });
});

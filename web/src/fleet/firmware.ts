import type { Schemas } from "../api/client";

export const components = ["aircraft", "controller", "pack", "payload", "app"] as const;
export type Component = (typeof components)[number];

export const componentNames: Record<Component, string> = {
  aircraft: "Aircraft",
  controller: "Controller",
  pack: "Packs",
  payload: "Payload",
  app: "App on the tablet",
};

export interface FirmwareRow {
  component: Component;
  tested?: string;
  installed?: Schemas["AircraftFirmware"]["installed"][number];
  /** Undefined where nothing was tested together: it is held against nothing. */
  verdict?: Schemas["Verdict"];
}

/** What is installed against what was tested together; a component of which neither is known is left out. */
export function firmwareRows(f: Schemas["AircraftFirmware"]): FirmwareRow[] {
  return components.flatMap((component) => {
    const tested = f.set?.versions[component] || undefined;
    const installed = f.installed.find((i) => i.component === component);
    if (!tested && !installed) return [];
    const odd = f.findings.find((x) => x.component === component);
    return [{ component, tested, installed, verdict: odd?.verdict ?? (tested ? "clear" : undefined) }];
  });
}

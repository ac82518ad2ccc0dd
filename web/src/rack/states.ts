import type { Schemas } from "../api/client";

type Pack = Schemas["Pack"];

/** States in the order of what a pack is good for now. */
export const stateOrder: Pack["state"][] = [
  "charged",
  "fitted",
  "charging",
  "hot",
  "flown",
  "storage",
  "quarantine",
  "retired",
];
export const stateWords: Record<Pack["state"], string> = {
  charged: "Charged, ready to fly",
  fitted: "Fitted",
  charging: "Charging",
  hot: "Hot, cooling down",
  flown: "Flown, to charge or to storage",
  storage: "At storage level",
  quarantine: "Quarantine: do not charge, do not fly",
  retired: "Retired",
};

/** Where the bars of a chemistry begin and end, in mV. */
export function scale(chemistry: string): [number, number] {
  if (chemistry === "LiHV") return [3500, 4400];
  if (chemistry === "Li-ion") return [2900, 4250];
  return [3500, 4250];
}

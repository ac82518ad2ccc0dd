import type { Schemas } from "../api/client";
import { type Verdict } from "../parts/Flag";

export const verdicts: Verdict[] = ["clear", "watch", "stop"];

export const colours = [
  "bs-body-bg",
  "sheet",
  "metal",
  "bs-body-color",
  "ink-soft",
  "rule",
  "clear-fill",
  "watch-fill",
  "stop-fill",
  "clear-wash",
  "watch-wash",
  "stop-wash",
];

export const findings: Schemas["Finding"][] = [
  {
    rule: "grounding",
    verdict: "stop",
    sentence: "Grounded by the technician: play in arm 2.",
    source: "the crew's own rule",
    evidence: "Grounding on record.",
    lifts: "technician or chief",
    at: new Date().toISOString(),
    remedy: { kind: "rack" },
  },
  {
    rule: "wear",
    verdict: "watch",
    sentence: "Propeller 1: 22.1 of 24 hours used: 1.9 left.",
    source: "maintenance programme",
    evidence: "Counters of the parts.",
    lifts: "technician or chief replaces it",
  },
];

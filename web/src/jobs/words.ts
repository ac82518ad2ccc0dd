import type { Schemas } from "../api/client";

export const workWords: Record<Schemas["Job"]["work"], string> = {
  spraying: "Spraying",
  mapping: "Mapping",
  inspection: "Inspection",
  practice: "Practice or check flight",
};

export const postWords: Record<string, string> = {
  rpic: "in command",
  pilot: "at the controls",
  observer: "observer",
  ground: "ground crew",
};

export const stateWords: Record<Schemas["Job"]["state"], string> = {
  planned: "planned",
  done: "done",
  "called-off": "called off",
};

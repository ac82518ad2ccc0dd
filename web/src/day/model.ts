import type { Schemas } from "../api/client";

export type Step = Schemas["StartStep"];

/** What a step of the start is called, why it comes, and where it is done. */
export const steps: Record<Step["key"], { title: string; why: string; to: string }> = {
  people: {
    title: "People",
    why: "Who flies has a certificate and the date of the last training on file.",
    to: "/crew",
  },
  aircraft: {
    title: "Aircraft",
    why: "Of a type that is there, or of your own: copy one in Set-up and change it.",
    to: "/fleet?add=aircraft",
  },
  mass: {
    title: "Weighed",
    why: "With packs and payload: without it the gate says Stop.",
    to: "/fleet",
  },
  packs: {
    title: "Packs",
    why: "All of a type at once, by their labels: L1 to L8.",
    to: "/packs?add=pack",
  },
  site: {
    title: "A site",
    why: "With its place and the ground; obstacles and people are drawn on it.",
    to: "/sites?new=1",
  },
  practice: {
    title: "Practice",
    why: "Where crews differ: choose what yours does. What you leave stays at its default.",
    to: "/practices",
  },
  job: {
    title: "The first job",
    why: "It asks for what still misses; then the walk, the gate, and the flight.",
    to: "/jobs?new=1",
  },
};

/** The step to take next: the first that is not done; nothing when all are. */
export const nextStep = (all: Step[]): Step["key"] | undefined => all.find((s) => !s.done)?.key;

import type { Schemas } from "../api/client";

type Step = Pick<Schemas["NextStep"], "kind"> & { id?: string; name?: string };

const named = (words: string, name?: string) => (name ? `${words} ${name}` : words);

/** What the button of a remedy or of a next step says. */
export function remedyWords(r: Step): string {
  const words: Record<Step["kind"], string> = {
    acceptance: "Fly it as acceptance flight",
    aircraft: "Open the aircraft",
    briefing: "Open the briefing",
    "choose-packs": "Choose packs",
    defect: "Open the defect",
    documents: "Open the documents",
    "enter-wind": "Enter the wind",
    fitness: "Declare it",
    flight: "Go to the flight",
    "flight-log": "Finish the log",
    gate: "Ask the gate",
    gear: named("Open", r.name || "the gear"),
    job: "Open the job",
    "job-decide": "Decide in the job",
    "job-mass": "Enter the mass",
    "job-rules": "Answer on one page",
    jobs: "Choose a job",
    mass: "Enter the mass",
    mission: "Open the mission",
    order: "Open the work order",
    "pack-look": named("Look at", r.name || "the pack"),
    "pack-read": named("Read", r.name || "the pack"),
    person: named("Open", r.name || "the person"),
    programme: "Open the programme",
    propellers: "Replace the propellers",
    rack: "Go to the rack",
    readiness: "Open the practice",
    release: "See the release",
    reports: "Open the reports",
    return: "Return to service",
    site: "Open the map",
    "site-airspace": "Open the airspace",
    "site-home": "Open the way home",
    "site-weather": "Read the weather",
    "spray-checks": "Calibrate it",
    "spray-plan": "Open the spray plan",
    station: named("Open", r.name || "the station"),
    "take-off": "Released: take off",
    task: "Open a work order",
    turnaround: "Turnaround check",
    walkround: named("Walk round", r.name || "it"),
    "walkround-resume": "Finish the walkround",
  };
  return words[r.kind];
}

/** Where in the application a remedy or a next step is done. */
export function remedyPath(r: Step, aircraft: string): string | undefined {
  switch (r.kind) {
    case "flight":
    case "flight-log":
      return `/fly/${r.id}`;
    case "gate":
    case "take-off":
    case "release":
      return `/gate/${aircraft}`;
    case "walkround":
    case "turnaround":
      return `/walk/start/${aircraft}?kind=${r.kind}`;
    case "walkround-resume":
      return `/walk/${r.id}`;
    case "aircraft":
      return `/fleet/${aircraft}`;
    case "mass":
      return `/fleet/${aircraft}?act=edit&at=mass`;
    case "return":
      return `/fleet/${aircraft}?act=return`;
    case "propellers":
      return `/fleet/${aircraft}?fit=propellers`;
    case "defect":
      return `/fleet/${aircraft}?defect=${r.id}`;
    case "station":
      return `/fleet/${aircraft}?station=${r.id?.split("/")[1] ?? ""}`;
    case "order":
      return `/workshop/orders/${r.id}`;
    case "task":
      return `/workshop/orders/new?aircraft=${aircraft}&task=${r.id?.split("/")[1] ?? ""}`;
    case "programme":
      return "/setup";
    case "acceptance":
      return `/gate/${aircraft}?acceptance=${r.id}`;
    case "pack-look":
      return `/packs/${r.id}?at=six-faces`;
    case "pack-read":
      return `/packs/${r.id}?at=reading`;
    case "rack":
      return "/packs";
    case "person":
    case "readiness":
      return `/crew/${r.id ?? ""}`;
    case "documents":
      return r.id ? `/crew/${r.id}` : "/crew?tab=papers";
    case "fitness":
      return "/crew?tab=fit";
    case "reports":
      return "/rules?tab=reports";
    case "jobs":
      return "/jobs";
    case "job":
      return `/jobs/${r.id}?change=1`;
    case "job-mass":
      return `/jobs/${r.id}?change=1&at=mass`;
    case "job-decide":
      return `/jobs/${r.id}`;
    case "gear":
      return r.id ? `/tonight?at=gear-${r.id}` : "/tonight";
    case "job-rules":
      return `/jobs/${r.id}?tab=asks`;
    case "briefing":
      return `/jobs/${r.id}?tab=briefing`;
    case "site":
      return `/sites/${r.id}`;
    case "site-home":
      return `/sites/${r.id}?tab=home${aircraft ? `&aircraft=${aircraft}` : ""}`;
    case "site-weather":
      return `/sites/${r.id}?tab=weather${aircraft ? `&aircraft=${aircraft}` : ""}`;
    case "site-airspace":
      return `/sites/${r.id}?tab=airspace`;
    case "mission":
      return `/jobs/${(r.id ?? "").replace("/", "/mission/")}`;
    case "spray-plan":
      return `/jobs/${(r.id ?? "").replace("/", "/spray/")}`;
    case "spray-checks":
      return `/fleet/${r.id}?tab=spray`;
    case "choose-packs":
    case "enter-wind":
      return aircraft ? `/gate/${aircraft}` : undefined;
    default:
      return r.kind satisfies never; // a remedy without a place does not compile
  }
}

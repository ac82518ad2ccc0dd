import { terms } from "../parts/words";

/** How the work of a page is done here, and the words that stand on it. */
export interface Page {
  /** Beginning of the address. */
  at: string;
  title: string;
  how: string[];
  words: (keyof typeof terms)[];
}

export const pages: Page[] = [
  {
    at: "/walk",
    title: "The walk",
    how: [
      "Walk the numbers on the plan, outside in. What is in order is one press; what is not is pressed alone, with a note or a photo.",
      "What is known already is offered with its age: look, then confirm it or read it anew.",
      "What is left out stands under Not asked today, with the reason. Two people may walk one round on two tablets.",
    ],
    words: ["walkround", "station", "spread", "stop"],
  },
  {
    at: "/gate",
    title: "The gate",
    how: [
      "Choose job and packs, and enter the wind as measured now. Each Stop says what lifts it, and its button leads there and back.",
      "When nothing stops the flight, the pilot signs with the PIN. The release holds as long as the wind reading it rests on.",
    ],
    words: ["gate", "stop", "rpic", "release", "gust", "landBy"],
  },
  {
    at: "/fly",
    title: "In flight",
    how: [
      "Take-off starts the time. Press what happens: a contact or a hard landing grounds the aircraft at once.",
      "The charge is asked at its time; at land-by it is on the ground. Log it right after, while you know.",
    ],
    words: ["landBy", "rpic"],
  },
  {
    at: "/fleet",
    title: "Aircraft",
    how: [
      "Each aircraft is drawn from its type; a coloured place has something against it. Press it for its story.",
      "Parts, defects, firmware and work are reached from the place where they belong.",
    ],
    words: ["life", "deferral", "station"],
  },
  {
    at: "/packs",
    title: "Packs",
    how: [
      "A pack goes from storage to charging, charged, fitted, hot and flown; the buttons offer what may come next.",
      "Read every cell after half an hour of rest. A reading of the wrong pack is withdrawn under Readings; what is on file is put right by Correct.",
    ],
    words: ["spread", "health", "resistance", "cycles"],
  },
  {
    at: "/sites",
    title: "Sites",
    how: [
      "Draw what stands and who may be there, with heights and how they were measured. The way home is worked out over it.",
      "Weather and airspace are fetched or read by hand, and grow old: the page says when.",
    ],
    words: ["returnHeight", "agl", "gust", "densityAltitude", "inversion"],
  },
  {
    at: "/jobs",
    title: "Jobs",
    how: [
      "One order at one site in one window, with people, aircraft and gear. Its page says what still misses before it is flown.",
      "Brief everybody, then walk, ask the gate, fly. Plans of spraying, survey and inspection hang on the job.",
    ],
    words: ["observer", "rpic", "returnHeight", "deltaT", "drift", "overlap", "gsd"],
  },
  {
    at: "/workshop",
    title: "Workshop",
    how: [
      "What falls due stands by date and hours. A work order leads through its steps; what is signed returns to service.",
      "Who raised a defect does not have to know its cause; who closes it says what was done.",
    ],
    words: ["deferral", "returnToService", "life"],
  },
  {
    at: "/log",
    title: "Log and records",
    how: [
      "Flights are searched by words and days, and go out as CSV. What was wrong is corrected beside what stood there, never over it.",
      "Check everything walks the chain; a head kept outside proves that nothing before it was changed.",
    ],
    words: ["chain", "head"],
  },
  {
    at: "/crew",
    title: "Crew",
    how: [
      "Who flies has a certificate and a date of training on file, and declares to be fit for the day.",
      "A forgotten password: a chief gives a one-time one on the person's page.",
    ],
    words: ["recency", "fit", "rpic"],
  },
  {
    at: "/tonight",
    title: "The evening",
    how: [
      "What flies tomorrow decides what is charged tonight, and what goes down to storage. Tick what is done; the pack moves with it.",
      "Gear that holds a charge ends a flight as a pack does: read its level, look at it.",
    ],
    words: ["cycles", "spread"],
  },
  {
    at: "/rotation",
    title: "Rotation",
    how: [
      "Say what you have, and see how many flights the day takes, what waits, and what one more of each would gain.",
    ],
    words: ["rotation"],
  },
  {
    at: "/types",
    title: "Types",
    how: [
      "Enter what the maker says; the plan is drawn as you type, and each figure is held against its bounds.",
      "A new type takes over checklist and programme of the one that it is like; both are yours then.",
    ],
    words: ["landBy", "life"],
  },
  {
    at: "/checklists",
    title: "Checklists",
    how: [
      "Change items, try a round out, compare with a version before, then keep it as a new version. Runs that are under way keep theirs.",
      "What the edit leaves uncovered of the authority's advisory list is said.",
    ],
    words: ["walkround", "station"],
  },
  {
    at: "/rules",
    title: "Rules",
    how: [
      "What the law asks is held by the gate with its paragraph; what a crew adds or a waiver lifts is on record.",
    ],
    words: ["gate", "rpic", "agl"],
  },
  {
    at: "/practices",
    title: "Practices",
    how: ["Where crews differ, choose what yours does. The maker of a type overrules it, and that is said."],
    words: ["practice"],
  },
  {
    at: "/bench",
    title: "Bench",
    how: ["Every calculation of the program alone, with its formula and the range in which it holds."],
    words: ["densityAltitude", "deltaT", "gust", "gsd"],
  },
  {
    at: "/setup",
    title: "Set-up",
    how: [
      "Types, lists, units and your own secrets. Files go out, are changed, and come back as a new version.",
    ],
    words: ["practice", "head"],
  },
  {
    at: "/",
    title: "The day",
    how: [
      "Each aircraft with its verdict, what is against it and the next thing to do. Press that, and go on from there.",
      "In order: walk round it, ask the gate, sign, take off, land, log, turn it round.",
    ],
    words: ["stop", "gate", "walkround"],
  },
];

/** The help of an address: the page whose beginning it has; the day where none does. */
export function pageAt(path: string): Page {
  const day = pages[pages.length - 1]!;
  return pages.find((p) => p.at !== "/" && (path === p.at || path.startsWith(`${p.at}/`))) ?? day;
}

/** Every word, in the order of the alphabet. */
export const allTerms = () => Object.values(terms).sort((a, b) => a.word.localeCompare(b.word));

/** A word of the trade, in one sentence, with its unit and where it comes from. */
export interface Term {
  word: string;
  says: string;
  unit?: string;
  source: string;
  /** How it is written where it stands in a text; without it the word is only in the help. */
  find?: RegExp;
}

export const terms: Record<string, Term> = {
  gate: {
    word: "Gate",
    says: "The decision before a flight: every rule held against aircraft, packs, crew, site and air, with the reason for each.",
    source: "this program",
  },
  stop: {
    word: "Stop, Watch, Clear",
    says: "Stop: it does not fly until this is put right; Watch: it may fly, and somebody keeps an eye on it; Clear: nothing against it. What is not known is never Clear.",
    source: "this program",
  },
  rpic: {
    word: "Remote pilot in command",
    says: "The one person who answers for the flight and signs its release.",
    source: "the rules that the crew flies under",
    find: /\bremote pilot in command\b/i,
  },
  observer: {
    word: "Visual observer",
    says: "Watches aircraft and air with bare eyes and can talk to the pilot at once.",
    source: "the rules that the crew flies under",
    find: /\bvisual observers?\b/i,
  },
  walkround: {
    word: "Walkround and turnaround",
    says: "The full check before the first flight of the day, and the short one with every pack.",
    source: "the rules that the crew flies under, usual practice",
  },
  station: {
    word: "Station",
    says: "A place on the airframe that is looked at, like arm 2; the numbers on the plan are the order of the walk.",
    source: "this program",
  },
  spread: {
    word: "Spread of the cells",
    says: "The fullest cell less the emptiest, read at rest: a weak cell shows here before the whole pack does.",
    unit: "mV",
    source: "usual practice",
    find: /\b(?:cell spread|spread of the cells|spread)\b/i,
  },
  landBy: {
    word: "Land by",
    says: "The charge, or the voltage of a cell under load, at which the aircraft is on the ground, not on its way to it.",
    unit: "%, V a cell",
    source: "type file, from the maker",
    find: /\bland[- ]by\b/i,
  },
  health: {
    word: "Health of a pack",
    says: "What it holds when measured, against what stands on it; under 80 % it is near its end.",
    unit: "% of rated capacity",
    source: "measured between two known levels",
    find: /\bhealth\b/i,
  },
  resistance: {
    word: "Inner resistance",
    says: "How much a cell sags under load: it rises with age and cold, and one that stands out is the weak one.",
    unit: "mΩ",
    source: "charger, or sag over current",
    find: /\b(?:inner )?resistance\b/i,
  },
  cycles: {
    word: "Cycles",
    says: "Whole discharges; half of one twice is one.",
    unit: "full cycles",
    source: "charge counted",
    find: /\bcycles\b/i,
  },
  agl: {
    word: "Above ground and above take-off",
    says: "Height over what lies right below, and height over where it took off: on a slope they part.",
    unit: "m or ft",
    source: "the rules that the crew flies under speak of above ground",
    find: /\babove (?:the )?ground\b/i,
  },
  returnHeight: {
    word: "Return height",
    says: "The height to which it climbs before it flies home by itself; it must clear everything on that way, with a margin.",
    unit: "m or ft above take-off",
    source: "crew's practice, maker's least",
    find: /\breturn height\b/i,
  },
  gust: {
    word: "Gust at flight height",
    says: "Wind is measured near the ground and is stronger above: it is scaled up by what covers the ground.",
    unit: "m/s, mph or kt",
    source: "power law of the wind",
    find: /\bgusts?\b/i,
  },
  densityAltitude: {
    word: "Density altitude",
    says: "The height in the standard air at which the air is as thin as here today: motors lift less.",
    unit: "m or ft",
    source: "standard atmosphere",
    find: /\bdensity altitude\b/i,
  },
  deltaT: {
    word: "Delta T",
    says: "Dry less wet bulb temperature: how fast spray drops dry up; usual bounds are 2 and 8.",
    unit: "°C",
    source: "usual practice; the label decides",
    find: /\bdelta t\b/i,
  },
  inversion: {
    word: "Inversion",
    says: "Warm air over cold: drops hang and drift far; no spraying.",
    unit: "°C over height",
    source: "product label, usual practice",
    find: /\binversion\b/i,
  },
  drift: {
    word: "Buffer",
    says: "The strip that stays unsprayed towards what must not be hit, downwind.",
    unit: "m or ft",
    source: "product label",
    find: /\bbuffers?\b/i,
  },
  overlap: {
    word: "Overlap",
    says: "The share of a picture that the next one shows again, ahead and to the side.",
    unit: "%",
    source: "survey practice",
    find: /\boverlap\b/i,
  },
  gsd: {
    word: "Resolution on the ground",
    says: "What one pixel covers there: pixel times height over focal length.",
    unit: "cm a pixel",
    source: "geometry of the camera",
    find: /\bone pixel shows\b/i,
  },
  deferral: {
    word: "Deferral",
    says: "A defect put off by somebody who may, for so many days and within limits that the gate holds.",
    source: "maintenance programme",
    find: /\bdefer(?:ral|red)\b/i,
  },
  returnToService: {
    word: "Return to service",
    says: "The signature after work: what was done, with which parts, and that it may fly again.",
    source: "usual practice",
    find: /\breturn(?:ed)? to service\b/i,
  },
  life: {
    word: "Life of a part",
    says: "Hours, flights, landings or months after which it is replaced; the counter stays with the part, not with the aircraft.",
    unit: "h, flights, landings, months",
    source: "type file, from the maker",
  },
  chain: {
    word: "Chain of records",
    says: "Each record carries a seal over the one before: a change of an old one is found.",
    source: "this program",
  },
  head: {
    word: "Head of the records",
    says: "The number and eight words of the newest seal: kept outside, they prove later that nothing before was changed.",
    source: "this program",
  },
  recency: {
    word: "Recurrent training",
    says: "What a pilot repeats at an interval; how long it holds stands with the rules, and at the person.",
    unit: "calendar months",
    source: "the rules that the crew flies under",
    find: /\brecurrent training\b/i,
  },
  fit: {
    word: "Fit to fly",
    says: "Each one declares it for the day: rest, alcohol, medicine, illness.",
    source: "the rules that the crew flies under",
    find: /\bfit to fly\b/i,
  },
  practice: {
    word: "Practice",
    says: "What this crew does where crews differ and neither law nor maker decides.",
    source: "chosen by the crew",
  },
  release: {
    word: "Release",
    says: "The pilot's signature on the gate as it stood then; when something of it changes, it holds no more.",
    source: "this program",
    find: /\breleases?\b/i,
  },
  rotation: {
    word: "Rotation",
    says: "Which aircraft flies which pack when, so that nothing waits for a charger.",
    source: "worked out from flight, cooling and charging times",
  },
};

/** A piece of a text: plain, or a word that opens its sentence. */
export interface Piece {
  text: string;
  term?: string;
}

/** Cuts a text where it has words of the trade, each once. */
export function explained(text: string): Piece[] {
  const found = Object.entries(terms)
    .flatMap(([term, t]) => {
      const m = t.find?.exec(text);
      return m ? [{ term, from: m.index, to: m.index + m[0].length }] : [];
    })
    .sort((a, b) => a.from - b.from);
  const out: Piece[] = [];
  let at = 0;
  for (const f of found) {
    if (f.from < at) continue; // part of a longer one
    if (f.from > at) out.push({ text: text.slice(at, f.from) });
    out.push({ text: text.slice(f.from, f.to), term: f.term });
    at = f.to;
  }
  if (at < text.length) out.push({ text: text.slice(at) });
  return out;
}

import type { Schemas } from "../api/client";
import { reader, type Press } from "../outbox/model";
import { worst } from "../parts/Flag";

export type Run = Schemas["Walkround"];
export type Item = Schemas["Item"];
export type Value = Schemas["ItemValue"];
export type Entry = Schemas["Entry"];

/** An entry as this device knows it: not judged yet where only the server can. */
export type Seen = Omit<Entry, "judgement"> & { judgement?: Schemas["Judgement"] };
export type RunSeen = Omit<Run, "entries"> & { entries: Seen[] };

/** What can be pressed on a walk; the names outlive the page. */
export interface WalkPresses {
  "walk.entry": { item_id: string; title: string; value: Value; judgement?: Schemas["Judgement"] };
  "walk.complete": { kind: string };
}

/** The item of the shipped lists that asks for a calibration of the compass. */
export const compassId = "compass-set";

export type Offer = Schemas["Offer"];

/** The pack of an item, as the judgement needs it. */
export function packOf(w: Pick<Run, "packs">, item: Item) {
  const p = w.packs.find((k) => k.id === item.pack_id);
  return p && { id: p.id, label: p.label, chemistry: p.chemistry, cells: p.cells };
}

const body = reader<WalkPresses>();

/** A walk as it will be when the server has taken one more press, made at a moment of the server's clock. */
export function pressed(w: RunSeen, p: Press, at: string): RunSeen {
  if (w.completed_at || w.abandoned) return w;
  const entered = body(p, "walk.entry");
  if (entered) {
    const old = w.entries.find((e) => e.item_id === entered.item_id);
    const entry: Seen = {
      item_id: entered.item_id,
      value: entered.value,
      judgement: entered.judgement,
      by: p.personName,
      at,
      others: old?.others.filter((o) => o.by !== p.personName) ?? [],
    };
    // What somebody else said about it stays beside it; the worse counts when the server has both.
    if (old && old.by !== p.personName && old.judgement)
      entry.others = [
        ...entry.others,
        { by: old.by, verdict: old.judgement.verdict, sentence: old.judgement.sentence },
      ];
    const entries = old
      ? w.entries.map((e) => (e.item_id === entry.item_id ? entry : e))
      : [...w.entries, entry];
    return withMissing({ ...w, entries });
  }
  if (body(p, "walk.complete"))
    return w.missing > 0
      ? w
      : { ...w, completed_at: at, completed_by: p.personName, verdict: verdictOf(w) ?? w.verdict };
  return w;
}

/** Who has said something about an item. */
const hands = (e: Seen | undefined) =>
  e ? new Set([e.by, ...e.others.map((o) => o.by)]) : new Set<string>();

/** Whether an item still asks for somebody; of one that two people say, for a second. */
const short = (item: Item, e: Seen | undefined) => hands(e).size < Math.max(item.hands ?? 1, 1);

const byItem = (w: RunSeen) => new Map(w.entries.map((e) => [e.item_id, e]));

function withMissing(w: RunSeen): RunSeen {
  const entries = byItem(w);
  return { ...w, missing: w.items.filter((it) => short(it, entries.get(it.id))).length };
}

/** The items that a person has still to enter: what only a second one can say is not theirs any more. */
export function openFor(w: RunSeen, me: string): Item[] {
  const entries = byItem(w);
  return w.items.filter((it) => short(it, entries.get(it.id)) && !hands(entries.get(it.id)).has(me));
}

/** The items that one person has said, and that a second one has still to say. */
export function secondWanted(w: RunSeen): Item[] {
  const entries = byItem(w);
  return w.items.filter((it) => entries.has(it.id) && short(it, entries.get(it.id)));
}

/** A walk with all presses that wait. */
export function withPresses(w: Run, waiting: Press[], toIso: (deviceMs: number) => string): RunSeen {
  return waiting.reduce<RunSeen>((r, p) => pressed(r, p, toIso(p.at)), w);
}

/** The worst of what was entered; nothing while an entry is not judged. */
export function verdictOf(w: RunSeen): Schemas["Verdict"] | undefined {
  const all = w.entries.map((e) => e.judgement?.verdict);
  if (all.some((v) => v === undefined)) return undefined;
  return worst([
    ...(all as Schemas["Verdict"][]),
    ...w.entries.flatMap((e) => e.others.map((o) => o.verdict)),
  ]);
}

/** Entries that are not clear: what was found, and what nobody has judged yet. */
export function found(w: RunSeen): Seen[] {
  return w.entries.filter(
    (e) => e.judgement?.verdict !== "clear" || e.others.some((o) => o.verdict !== "clear"),
  );
}

/** The item that comes after one: the next that a person has still to enter further on, else the first. One that is being entered is open no more. */
export function nextOpen(w: RunSeen, me: string, after = -1, entered?: string): number | undefined {
  const left = new Set(openFor(w, me).filter((it) => it.id !== entered));
  const open = w.items.flatMap((it, i) => (left.has(it) ? [i] : []));
  return open.find((i) => i > after) ?? open[0];
}

/** Where an item looks: its own station, and each mark's. */
/** The open defects at the places that an item looks at. */
export function openAt(all: Schemas["Defect"][], item: Item): Schemas["Defect"][] {
  const here = new Set(stationsOf(item));
  return all.filter((d) => !d.closed_at && here.has(d.station));
}

/** What the last flights and walks say of the motors that an item looks at, where they stand out. */
export function trendsAt(t: Schemas["Trends"], item: Item): { verdict: Schemas["Verdict"]; words: string }[] {
  const here = new Set(stationsOf(item));
  const drifts = [...t.warmth, ...t.output].filter(
    (d) => d.known && d.verdict !== "clear" && here.has(`motor-${d.motor}`),
  );
  const odd = t.feel.filter((f) => f.odd > 0 && here.has(f.station));
  return [
    ...drifts.map((d) => ({ verdict: d.verdict, words: d.sentence })),
    ...odd.map((f) => ({
      verdict: "watch" as const,
      words: `Motor ${f.station.slice("motor-".length)} was odd on ${f.odd} of ${f.walks} walks, last: ${f.last}`,
    })),
  ];
}

export const stationsOf = (item: Item): string[] => [
  ...new Set([item.station, ...(item.marks ?? []).map((m) => m.station)]),
];

/** What an entry says of one station: only the marks that are named are not in order. */
export function saidOf(item: Item, entry: Seen, station: string): Schemas["Verdict"] | undefined {
  const wrong = entry.value.wrong ?? [];
  if (!wrong.length || !entry.judgement) return entry.judgement?.verdict;
  const here = (item.marks ?? []).some((m) => m.station === station && wrong.includes(m.id));
  return here ? entry.judgement.verdict : "clear";
}

/** Stations in the order of the walk, each once. */
export function wayRound(items: Item[]): string[] {
  return [...new Set(items.flatMap(stationsOf))];
}

/** The round that was asked for, where the list has it; else the first. */
export function roundOf(rounds: Schemas["Round"][], asked: string | null): Schemas["RoundKey"] {
  return (rounds.find((r) => r.key === asked) ?? rounds[0])?.key ?? "walkround";
}

/** The packs that may come along on an aircraft, the fullest first. */
export function packsFor(packs: Schemas["Pack"][], d: Schemas["AircraftDetail"]): Schemas["Pack"][] {
  return packs
    .filter(
      (p) =>
        p.fits.includes(d.type.profile.name) && (p.state === "charged" || p.fitted_to === d.aircraft.name),
    )
    .sort((a, b) => (b.percent ?? 0) - (a.percent ?? 0));
}

/** The job whose window it is now: a walk belongs to it. */
export function jobNow<J extends Pick<Schemas["JobHead"], "state" | "aircraft" | "from" | "to">>(
  jobs: J[],
  aircraft: string,
  now: number,
): J | undefined {
  return jobs.find(
    (j) =>
      j.state === "planned" &&
      j.aircraft.includes(aircraft) &&
      Date.parse(j.from) <= now + 2 * 3_600_000 &&
      now < Date.parse(j.to),
  );
}

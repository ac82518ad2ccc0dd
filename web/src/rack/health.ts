import type { Schemas } from "../api/client";

type Health = Schemas["PackHealth"];

/** How many packs are named in the drawing: more lines are not told apart. */
export const named = 5;

const middle = (v: number[]) => {
  const s = [...v].sort((a, b) => a - b);
  const h = s.length >> 1;
  return s.length % 2 ? s[h]! : (s[h - 1]! + s[h]!) / 2;
};

/** The health at each measurement: the median of it and the four before, as the forecast takes it. */
export function smoothed(p: Pick<Health, "points">): { at: number; percent: number }[] {
  return p.points.map((m, i) => ({
    at: Date.parse(m.at),
    percent: Math.round(middle(p.points.slice(Math.max(0, i - 4), i + 1).map((x) => x.percent)) * 10) / 10,
  }));
}

/** A row for each time at which any pack was measured; a pack has a value where it was. */
export function healthRows(packs: Health[]): Record<string, number>[] {
  const rows = new Map<number, Record<string, number>>();
  for (const p of packs)
    for (const m of smoothed(p)) {
      const row = rows.get(m.at) ?? { at: m.at };
      row[p.id] = m.percent;
      rows.set(m.at, row);
    }
  return [...rows.values()].sort((a, b) => a.at! - b.at!);
}

/** The packs with the least health now, the weakest first. */
export function weakest(packs: Health[], most: number): { id: string; label: string; now: number }[] {
  return packs
    .flatMap((p) => {
      const last = smoothed(p).at(-1);
      return last ? [{ id: p.id, label: p.label, now: Math.round(last.percent) }] : [];
    })
    .sort((a, b) => a.now - b.now || a.label.localeCompare(b.label, "en", { numeric: true }))
    .slice(0, most);
}

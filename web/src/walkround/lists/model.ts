import type { Schemas } from "../../api/client";

export type List = Schemas["Checklist"];
export type Item = Schemas["Item"];

/** Where an item stands in a list. */
export interface Place {
  section: number;
  item: number;
}

const put = (l: List, section: number, items: Item[]): List => ({
  ...l,
  sections: l.sections.map((s, i) => (i === section ? { ...s, items } : s)),
});

/** The list with an item in its place, or behind the last of the section. */
export function withItem(l: List, at: Place, item: Item): List {
  const items = [...l.sections[at.section]!.items];
  items.splice(at.item, at.item < items.length ? 1 : 0, item);
  return put(l, at.section, items);
}

export function withoutItem(l: List, at: Place): List {
  return put(
    l,
    at.section,
    l.sections[at.section]!.items.filter((_, i) => i !== at.item),
  );
}

/** The list with an item moved by one place; past the end of its section into the next. */
export function moved(l: List, at: Place, by: 1 | -1): List {
  const item = l.sections[at.section]!.items[at.item]!;
  const to = at.item + by;
  const rest = withoutItem(l, at);
  const insert = (section: number, index: number) => {
    const items = [...rest.sections[section]!.items];
    items.splice(index, 0, item);
    return put(rest, section, items);
  };
  if (to >= 0 && to < l.sections[at.section]!.items.length) return insert(at.section, to);
  const next = at.section + by;
  if (next < 0 || next >= l.sections.length) return l;
  return insert(next, by > 0 ? 0 : rest.sections[next]!.items.length);
}

/** What became of an item from one version to another. */
export interface Change {
  id: string;
  title: string;
  what: "added" | "removed" | "changed" | "moved";
  fields: string[];
}

const flat = (l: List) => l.sections.flatMap((s) => s.items.map((item) => ({ item, section: s.title })));

/** The items that differ between two versions, in the order of the newer, those that are gone last. */
export function changes(older: List, newer: List): Change[] {
  const before = new Map(flat(older).map((x) => [x.item.id, x]));
  const after = flat(newer);
  const out: Change[] = [];
  for (const { item, section } of after) {
    const was = before.get(item.id);
    if (!was) {
      out.push({ id: item.id, title: item.title, what: "added", fields: [] });
      continue;
    }
    const names = new Set([...Object.keys(item), ...Object.keys(was.item)]) as Set<keyof Item>;
    const fields = [...names].filter((k) => JSON.stringify(item[k]) !== JSON.stringify(was.item[k]));
    if (fields.length) out.push({ id: item.id, title: item.title, what: "changed", fields });
    else if (was.section !== section) out.push({ id: item.id, title: item.title, what: "moved", fields: [] });
  }
  const there = new Set(after.map((x) => x.item.id));
  for (const { item } of before.values())
    if (!there.has(item.id)) out.push({ id: item.id, title: item.title, what: "removed", fields: [] });
  return out;
}

/** Lines of words parted by |, as marks, answers and conditions are written. */
const lines = (text: string) =>
  text
    .split("\n")
    .map((l) => l.split("|").map((w) => w.trim()))
    .filter((l) => l.some(Boolean));

const line = (...words: (string | undefined)[]) => words.map((w) => w ?? "").join(" | ");

export const marksText = (item: Item) =>
  (item.marks ?? []).map((m) => line(m.id, m.station, m.title, m.bad)).join("\n");

export function marksOf(text: string, before: Item["marks"] = []): NonNullable<Item["marks"]> {
  return lines(text).map(([id = "", station = "", title = "", bad = ""]) => ({
    ...before.find((m) => m.id === id),
    id,
    station,
    title,
    ...(bad ? { bad } : {}),
  }));
}

export const optionsText = (item: Item) =>
  (item.options ?? []).map((o) => line(o.key, o.verdict, o.title, o.do)).join("\n");

export function optionsOf(text: string): NonNullable<Item["options"]> {
  return lines(text).map(([key = "", verdict = "", title = "", what = ""]) => ({
    key,
    verdict: (["clear", "watch", "stop"].includes(verdict) ? verdict : "stop") as Schemas["Verdict"],
    title,
    ...(what ? { do: what } : {}),
  }));
}

export const whenText = (item: Item) =>
  (item.when ?? [])
    .map((w) => (w.over === undefined ? `${w.fact} = ${(w.is ?? []).join(", ")}` : `${w.fact} > ${w.over}`))
    .join("\n");

/** Conditions as typed, one a line: "night = yes", "days-since-flight > 30". */
export function whenOf(text: string): NonNullable<Item["when"]> {
  return text
    .split("\n")
    .map((l) => l.trim())
    .filter(Boolean)
    .map((l) => {
      const over = /^(\S+)\s*>\s*([\d.]+)$/.exec(l);
      if (over) return { fact: over[1]!, over: Number(over[2]) };
      const [fact = "", words = ""] = l.split("=").map((w) => w.trim());
      return {
        fact,
        is: words
          .split(",")
          .map((w) => w.trim())
          .filter(Boolean),
      };
    });
}

/** A new item that has nothing yet. */
export const blank: Item = {
  id: "",
  station: "frame",
  title: "",
  how: "",
  why: "",
  kind: "look",
  defect: "stop",
};

/** The list as it is handed in next. */
export const nextVersion = (l: List, newest: number): List => ({ ...l, version: newest + 1 });

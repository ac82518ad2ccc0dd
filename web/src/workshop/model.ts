import type { Schemas } from "../api/client";
import { byNumber, byText, type ListOrder } from "../parts/lists";
import { counted } from "../parts/number";

export type DueLine = Schemas["DueItem"];
type Defect = Schemas["Defect"];

/** Parts of one aircraft that fall due on the same day for the same reason stand in one line. */
export function together(items: DueLine[]): DueLine[][] {
  const groups = new Map<string, DueLine[]>();
  for (const i of items) {
    const key = [i.aircraft_id, i.what, i.kind, i.task_id, i.sentence, i.due_on].join("|");
    groups.set(key, [...(groups.get(key) ?? []), i]);
  }
  return [...groups.values()];
}

/** Whole days from now until a line falls due. */
export function daysLeft(i: DueLine, now: number): number | undefined {
  return i.due_on ? Math.ceil((Date.parse(i.due_on) - now) / 86_400_000) : undefined;
}

export const dueOrders: ListOrder<DueLine[]>[] = [
  { key: "", name: "most urgent first" },
  { key: "aircraft", name: "by aircraft", compare: byText((g) => g[0]!.aircraft) },
  { key: "what", name: "by task or part", compare: byText((g) => g[0]!.label) },
  { key: "life", name: "by life used", compare: byNumber((g) => -g[0]!.fraction) },
];

const worst = { stop: 0, watch: 1, clear: 2 };

export const defectOrders: ListOrder<Defect>[] = [
  { key: "", name: "newest first" },
  { key: "worst", name: "worst first", compare: byNumber((d) => worst[d.severity]) },
  { key: "old", name: "oldest first", compare: byText((d) => d.raised_at) },
  { key: "aircraft", name: "by aircraft", compare: byText((d) => d.aircraft) },
];

export const workOrders: ListOrder<Schemas["WorkOrders"]["orders"][number]>[] = [
  { key: "", name: "open ones first" },
  { key: "aircraft", name: "by aircraft", compare: byText((o) => o.aircraft) },
  { key: "what", name: "by work", compare: byText((o) => o.title) },
  { key: "old", name: "oldest first", compare: byText((o) => o.opened_at) },
];

export const stockOrders: ListOrder<Schemas["StockLine"]>[] = [
  {
    key: "",
    name: "to be ordered first",
    compare: byNumber((l) => worst[l.order.verdict]),
  },
  { key: "name", name: "by name", compare: byText((l) => l.name) },
  { key: "hand", name: "fewest first", compare: byNumber((l) => l.on_hand) },
];

/** Something that a work order can be opened for at once. */
export interface Wanted {
  key: string;
  /** "Dray One: motor bearings". */
  name: string;
  aircraft: string;
  task?: string;
  defect?: string;
}

export const wantedTask = (i: DueLine): Wanted | undefined =>
  i.what === "task" && !i.order_id
    ? {
        key: `${i.aircraft_id}-${i.task_id}`,
        name: `${i.aircraft}: ${i.label}`,
        aircraft: i.aircraft_id,
        task: i.task_id,
      }
    : undefined;

export const wantedDefect = (d: Defect): Wanted | undefined =>
  d.order_id || d.closed_at
    ? undefined
    : { key: d.id, name: `${d.aircraft}: ${d.title}`, aircraft: d.aircraft_id, defect: d.id };

/** What became of one of several: the order that was opened, or why not. */
export interface Opened {
  name: string;
  order?: string;
  refused?: string;
}

/** What became of all of them, in words. */
export function openedWords(all: Opened[]): { done: string; refused: string[]; orders: string[] } {
  const orders = all.flatMap((o) => o.order ?? []);
  return {
    orders,
    done: orders.length === 0 ? "" : `${counted(orders.length, "work order")} opened.`,
    refused: all.flatMap((o) => (o.refused ? `${o.name}: ${o.refused}` : [])),
  };
}

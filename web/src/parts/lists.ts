/** Things whose text has all the words, whatever their case and order. */
export function withWords<T>(items: T[], words: string, text: (t: T) => string): T[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean);
  return all.length === 0
    ? items
    : items.filter((t) => {
        const s = text(t).toLowerCase();
        return all.every((w) => s.includes(w));
      });
}

/** How far a list that comes in pages has been read, where all of it is needed: for a search, or another order. */
export type Reading = "done" | "to go on" | "under way" | "stuck";

/** Whether more has to be read; after a failure only a press tries again. */
export function reading(pages?: {
  hasNextPage: boolean;
  isFetchingNextPage: boolean;
  isFetchNextPageError: boolean;
}): Reading {
  if (!pages?.hasNextPage) return "done";
  if (pages.isFetchingNextPage) return "under way";
  return pages.isFetchNextPageError ? "stuck" : "to go on";
}

/** How many lines a list shows at first, and with each press more. */
export const page = 50;

/** One order that a list can stand in; without a comparison it stands as it came. */
export interface ListOrder<T> {
  key: string;
  name: string;
  compare?: (a: T, b: T) => number;
}

/** Compares by a text, numbers in it as numbers. */
export function byText<T>(text: (t: T) => string): (a: T, b: T) => number {
  return (a, b) => text(a).localeCompare(text(b), "en", { numeric: true });
}

/** Compares by a number, smallest first; what is not known comes last. */
export function byNumber<T>(number: (t: T) => number | null | undefined): (a: T, b: T) => number {
  return (a, b) => {
    const [x, y] = [number(a) ?? undefined, number(b) ?? undefined];
    if (x === y) return 0;
    return x === undefined ? 1 : y === undefined ? -1 : x - y;
  };
}

/** The things in the order with this key, or as they came. Equal ones keep their places. */
export function inOrder<T>(items: T[], orders: ListOrder<T>[], key: string): T[] {
  const compare = orders.find((o) => o.key === key)?.compare;
  return compare ? [...items].sort(compare) : items;
}

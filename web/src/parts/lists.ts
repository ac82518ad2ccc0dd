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

/** How many lines a list shows at first, and with each press more. */
export const page = 50;

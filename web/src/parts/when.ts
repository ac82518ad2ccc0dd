/** Digits of each part of a moment: year, month, day, hour, minute. */
const sizes = [4, 2, 2, 2, 2];
const between = ["", "-", "-", " ", ":"];

/**
 * What is typed of a day or a moment, brought into shape as it is typed: 20261130
 * becomes 2026-11-30, and a part of one digit gets its zero when the next begins.
 * While it grows, the mark after a full part comes by itself.
 */
export function shaped(text: string, parts: 3 | 5, growing: boolean): string {
  const groups = [""];
  let moved = false; // a mark was typed, and the next part has begun
  for (const c of text) {
    const at = groups.length - 1;
    if (/\d/.test(c)) {
      moved = false;
      if (groups[at]!.length < sizes[at]!) groups[at] += c;
      else if (groups.length < parts) groups.push(c);
    } else if (!moved && groups[at] !== "" && groups.length < parts) {
      if (at > 0) groups[at] = groups[at]!.padStart(sizes[at]!, "0");
      if (groups[at]!.length === sizes[at]) {
        groups.push("");
        moved = true;
      }
    }
  }
  const last = groups.length - 1;
  if (growing && last < parts - 1 && groups[last]!.length === sizes[last]) groups.push("");
  if (!growing && groups.at(-1) === "" && groups.length > 1) groups.pop();
  return groups.map((g, i) => between[i] + g).join("");
}

/** Whether it is a day that there is, as 2026-11-30. */
export function isDay(text: string): boolean {
  if (!/^\d{4}-\d\d-\d\d$/.test(text)) return false;
  const t = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(t.getTime()) && t.toISOString().slice(0, 10) === text;
}

/** Whether it is a moment that a clock shows, as 2026-11-30 18:05. */
export function isMoment(text: string): boolean {
  const m = /^(\d{4}-\d\d-\d\d)[ T](\d\d):(\d\d)$/.exec(text);
  return m !== null && isDay(m[1]!) && Number(m[2]) < 24 && Number(m[3]) < 60;
}

/** The day so many days after another. */
export function dayAfter(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}

const weekdays = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];

/** The weekday of a day, or nothing where it is none. */
export function weekday(text: string): string {
  const day = text.slice(0, 10);
  return isDay(day) ? weekdays[new Date(`${day}T00:00:00Z`).getUTCDay()]! : "";
}

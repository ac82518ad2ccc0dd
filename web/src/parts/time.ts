import { useCallback, useSyncExternalStore } from "react";
import { useSession } from "./session";
import { isMoment } from "./when";

const offsetKey = "mainstay.clock";
/** How far the server's clock is ahead of this device's, in ms; kept for a page that opens without network. */
let offset = keptOffset();
function keptOffset(): number {
  try {
    return Number(localStorage.getItem(offsetKey)) || 0;
  } catch {
    return 0; // without storage it is known with the first answer
  }
}
let now = Date.now();
const listeners = new Set<() => void>();
setInterval(() => {
  now = Date.now();
  listeners.forEach((l) => l());
}, 1000);

/** Sets the clock by the server's time, which is the one that counts. */
export function setServerTime(iso: string) {
  offset = Date.parse(iso) - Date.now();
  now = Date.now();
  try {
    localStorage.setItem(offsetKey, String(offset));
  } catch {
    /* without storage it is known again with the next answer */
  }
}

/** A moment of this device's clock by the server's. */
export function serverIso(deviceMs: number): string {
  return new Date(deviceMs + offset).toISOString();
}

/** The server's time now, in ms, without waiting for a tick. */
export function serverNow(): number {
  return Date.now() + offset;
}

/** The server's time in ms; renders again every second. */
export function useNow(): number {
  return useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => now + offset,
  );
}

const formats = new Map<string, Intl.DateTimeFormat>();

/** The format of a zone, made once: making one takes longer than a hundred uses. */
function formatOf(zone: string, o: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${zone} ${JSON.stringify(o)}`;
  const known = formats.get(key);
  if (known) return known;
  const made = new Intl.DateTimeFormat("en-CA", { timeZone: zone, hourCycle: "h23", ...o });
  formats.set(key, made);
  return made;
}

/** Shows times in the crew's zone. */
export function useZone() {
  const { crew } = useSession();
  const zone = crew.zone;
  const fmt = useCallback(
    (iso: string, o: Intl.DateTimeFormatOptions) => formatOf(zone, o).format(new Date(iso)),
    [zone],
  );
  return {
    zone,
    date: (iso: string) => fmt(iso, { year: "numeric", month: "2-digit", day: "2-digit" }),
    time: (iso: string) => fmt(iso, { hour: "2-digit", minute: "2-digit" }),
    second: (iso: string) => fmt(iso, { hour: "2-digit", minute: "2-digit", second: "2-digit" }),
    clock: (ms: number) =>
      fmt(new Date(ms).toISOString(), { hour: "2-digit", minute: "2-digit", second: "2-digit" }),
    /** As a field for date and time takes it. */
    local: (iso: string) =>
      `${fmt(iso, { year: "numeric", month: "2-digit", day: "2-digit" })} ${fmt(iso, { hour: "2-digit", minute: "2-digit" })}`,
    both: (iso: string) =>
      `${fmt(iso, { year: "numeric", month: "2-digit", day: "2-digit" })} ${fmt(iso, { hour: "2-digit", minute: "2-digit" })}`,
  };
}

/** Says how long ago something was. */
export function useAge() {
  const t = useNow();
  return (iso: string) => {
    const s = (t - Date.parse(iso)) / 1000;
    if (s < 90) return "just now";
    if (s < 5400) return `${Math.round(s / 60)} min ago`;
    if (s < 48 * 3600) return `${Math.round(s / 3600)} h ago`;
    return `${Math.round(s / 86400)} days ago`;
  };
}

/** Hours and minutes of a duration in seconds, like 1:05. */
export function hoursMinutes(seconds: number): string {
  const m = Math.round(seconds / 60);
  return `${Math.floor(m / 60)}:${String(m % 60).padStart(2, "0")}`;
}

/** The instant at which a clock in a zone shows a local date and time; the offset is found by asking the zone. */
export function instant(local: string, zone: string): string | undefined {
  if (!isMoment(local)) return undefined; // a browser makes a date of almost anything
  const utc = Date.parse(`${local.replace(" ", "T")}:00Z`);
  if (Number.isNaN(utc)) return undefined;
  const shown = (ms: number) => {
    const p = formatOf(zone, {
      year: "numeric",
      month: "2-digit",
      day: "2-digit",
      hour: "2-digit",
      minute: "2-digit",
    }).formatToParts(new Date(ms));
    const g = (t: string) => p.find((x) => x.type === t)?.value ?? "";
    return Date.parse(`${g("year")}-${g("month")}-${g("day")}T${g("hour")}:${g("minute")}:00Z`);
  };
  let t = utc - (shown(utc) - utc);
  t -= shown(t) - utc; // once more, for the hours at which clocks change
  return new Date(t).toISOString();
}

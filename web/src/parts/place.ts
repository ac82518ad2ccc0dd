/** A place on the ground, degrees; north and east are positive. */
export interface Place {
  lat: number;
  lon: number;
}

export type PlaceRead = { ok: true; place: Place } | { ok: false; sentence: string };

const form = "Like 46.31, -119.70 or 46°18'36\"N 119°42'00\"W.";

/** One of the two numbers of a place, with how it was marked: N or S, E or W, or not at all. */
interface Half {
  deg: number;
  mark: string;
}

const marks = /[NSEWO]/i;

/** Degrees, minutes and seconds in a piece of text, with its mark. */
function half(text: string): Half | undefined {
  const mark = (marks.exec(text)?.[0] ?? "").toUpperCase();
  const bare = text.replace(/[NSEWO]/i, " ");
  const sign = /^\s*[-\u2212]/.test(bare) ? -1 : 1;
  const parts = bare
    .replace(/[\u2212-]/g, " ")
    .replace(/[°'"′″’”d:]/g, " ")
    .trim()
    .split(/\s+/);
  const numbers = parts.map((p) => Number(p.replace(",", ".")));
  if (parts[0] === "" || numbers.length > 3 || numbers.some((n) => !Number.isFinite(n) || n < 0))
    return undefined;
  const [deg = 0, min = 0, s = 0] = numbers;
  if (min >= 60 || s >= 60 || (sign < 0 && mark)) return undefined; // -33 S is north, or nobody's way
  if (numbers.slice(0, -1).some((n) => !Number.isInteger(n))) return undefined; // 46.5 30 is nobody's way
  const value = deg + min / 60 + s / 3600;
  return { deg: sign * (mark === "S" || mark === "W" ? -value : value), mark };
}

/** Cuts a text into its two halves: at a semicolon, behind a mark, at a comma, or at a space. */
function halves(text: string): [string, string] | undefined {
  const t = text.trim().replace(/^\(|\)$/g, "");
  const two = (a: string[]) =>
    a.length === 2 && a.every((x) => x.trim()) ? ([a[0]!, a[1]!] as [string, string]) : undefined;
  const cut = (sep: RegExp) => two(t.split(sep));
  const behind = /^(.*\d[°'"′″’”\s]*[NSEW])[\s,;]+(.+)$/i.exec(t);
  const before = /^([NSEW][^NSEW]*?)[\s,;]*([NSEW].*)$/i.exec(t);
  return (
    cut(/;/) ??
    (behind ? two([behind[1]!, behind[2]!]) : undefined) ??
    (before ? two([before[1]!, before[2]!]) : undefined) ??
    cut(/,\s+/) ??
    (/\.\d/.test(t) || /,[-\u2212]/.test(t) ? cut(/,/) : undefined) ??
    cut(/\s+/)
  );
}

/**
 * Reads a place as people paste it: two numbers, latitude first, with a decimal point or comma,
 * or degrees, minutes and seconds with N, S, E, W. Anything else is a sentence, never a guess.
 */
export function readPlace(text: string): PlaceRead {
  const cut = halves(text);
  const [a, b] = cut ? cut.map(half) : [];
  if (!a || !b) return { ok: false, sentence: `This is no place. ${form}` };
  const east = (h: Half) => h.mark === "E" || h.mark === "W";
  const north = (h: Half) => h.mark === "N" || h.mark === "S";
  if ((east(a) && east(b)) || (north(a) && north(b)) || a.mark === "O" || b.mark === "O")
    return { ok: false, sentence: `One is north or south, the other east or west. ${form}` };
  const [lat, lon] = east(a) || north(b) ? [b.deg, a.deg] : [a.deg, b.deg];
  if (Math.abs(lat) > 85)
    return {
      ok: false,
      sentence: `Latitude comes first and is within 85 degrees; ${lat} is not.`,
    };
  if (Math.abs(lon) > 180) return { ok: false, sentence: `Longitude is within 180 degrees; ${lon} is not.` };
  return { ok: true, place: { lat, lon } };
}

/** A place as it is shown and typed: six decimals are a tenth of a metre. */
export const showPlace = (p: Place) => `${+p.lat.toFixed(6)}, ${+p.lon.toFixed(6)}`;

/** A place in words, to be read against what was meant. */
export const placeWords = (p: Place) =>
  `${Math.abs(+p.lat.toFixed(6))}° ${p.lat < 0 ? "south" : "north"}, ${Math.abs(+p.lon.toFixed(6))}° ${p.lon < 0 ? "west" : "east"}`;

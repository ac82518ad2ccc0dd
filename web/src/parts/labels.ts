/** A word that belongs to a place of a drawing; lengths in px. */
export interface Label {
  key: string;
  x: number;
  y: number;
  width: number;
  height: number;
  /** What comes first finds a place first. */
  rank: number;
  /** How far from its place it stands at least. */
  gap?: number;
}

export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Directions in which a word may stand beside its place: above first, as readers look. */
const sides: [number, number][] = [
  [0, -1],
  [1, 0],
  [0, 1],
  [-1, 0],
  [1, -1],
  [-1, -1],
  [1, 1],
  [-1, 1],
];

export const meet = (a: Box, b: Box) =>
  a.left < b.left + b.width &&
  b.left < a.left + a.width &&
  a.top < b.top + b.height &&
  b.top < a.top + a.height;

/**
 * Finds a place for each word so that none lies on another, on what is taken, or outside of
 * the drawing. A word that finds none is left out: what it names is still pressed or listed.
 */
export function placeLabels(labels: Label[], taken: Box[], within: Box): Map<string, Box> {
  const out = new Map<string, Box>();
  const full = [...taken];
  for (const l of [...labels].sort((a, b) => b.rank - a.rank)) {
    const box = spots(l).find((s) => inside(s, within) && !full.some((f) => meet(f, s)));
    if (!box) continue;
    full.push(box);
    out.set(l.key, box);
  }
  return out;
}

function spots(l: Label): Box[] {
  const gap = l.gap ?? 8;
  const size = { width: l.width, height: l.height };
  return [gap, gap + l.height, gap + 2 * l.height].flatMap((d) =>
    sides.map(([h, v]) => ({
      left: l.x - l.width / 2 + h * (l.width / 2 + (v === 0 ? d : d / 2)),
      top: l.y - l.height / 2 + v * (l.height / 2 + d),
      ...size,
    })),
  );
}

const inside = (s: Box, w: Box) =>
  s.left >= w.left &&
  s.top >= w.top &&
  s.left + s.width <= w.left + w.width &&
  s.top + s.height <= w.top + w.height;

import type { Schemas } from "../api/client";

type Step = Schemas["WayStep"];

/** Lowest and highest elevation of a side view, and where lines are drawn across it. */
export function axis(s: Schemas["SiteSection"], flown?: (ground: number) => number) {
  const ground = s.steps.flatMap((p) => (p.ground_m == null ? [] : [p.ground_m]));
  const all = [
    ...ground,
    ...(flown ? ground.map(flown) : []),
    ...s.tops.flatMap((t) => [t.foot_m, t.top_m == null ? t.foot_m : t.top_m + 2 * t.sigma_m]),
  ];
  const low = Math.min(...all, Infinity);
  const high = Math.max(...all, -Infinity);
  if (!Number.isFinite(low)) return { low: 0, high: 1, ticks: [] as number[] };
  const room = Math.max(high - low, 10) * 0.08;
  const [from, to] = [low - room, Math.max(high, low + 10) + room];
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((k) => (to - from) / k <= 6) ?? 2000;
  const ticks: number[] = [];
  for (let m = Math.ceil(from / step) * step; m <= to; m += step) ticks.push(m);
  return { low: from, high: to, ticks };
}

type Scale = (m: number) => number;
const n = (v: number) => v.toFixed(1);

/** The outline of the ground down to the foot of the drawing, broken where nobody knows it. */
export function pathOf(steps: Step[], x: Scale, y: Scale, foot: number): string {
  return runs(steps)
    .map(
      (r) =>
        `M${n(x(r[0]!.along_m))} ${n(foot)}` +
        r.map((p) => `L${n(x(p.along_m))} ${n(y(p.ground_m!))}`).join("") +
        `L${n(x(r.at(-1)!.along_m))} ${n(foot)}Z`,
    )
    .join("");
}

/** The line that is flown over the ground. */
export function flownOver(steps: Step[], flown: (ground: number) => number, x: Scale, y: Scale): string {
  return runs(steps)
    .map((r) => r.map((p, i) => `${i ? "L" : "M"}${n(x(p.along_m))} ${n(y(flown(p.ground_m!)))}`).join(""))
    .join("");
}

/** Rises and falls of the ground along a line, and its lowest and highest elevation. */
export function climbs(steps: Step[]): { low: number; high: number; up: number; down: number } | undefined {
  const ground = steps.flatMap((p) => (p.ground_m == null ? [] : [p.ground_m]));
  if (ground.length === 0) return;
  let [up, down] = [0, 0];
  ground.slice(1).forEach((g, i) => {
    const d = g - ground[i]!;
    if (d > 0) up += d;
    else down -= d;
  });
  return { low: Math.min(...ground), high: Math.max(...ground), up, down };
}

/** Pieces of a line without a gap in what is known. */
function runs(steps: Step[]): Step[][] {
  const out: Step[][] = [];
  let open = false;
  for (const p of steps) {
    if (p.ground_m == null) open = false;
    else if (open) out.at(-1)!.push(p);
    else {
      out.push([p]);
      open = true;
    }
  }
  return out.filter((r) => r.length > 1);
}

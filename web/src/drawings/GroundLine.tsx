import type { Schemas } from "../api/client";
import { placeLabels } from "../parts/labels";
import { useUnits } from "../parts/units";
import { axis, flownOver, pathOf } from "./ground";
import { useDrawn } from "./useDrawn";

const H = 220;
const [L, R, T, B] = [70, 14, 30, 34];

export interface GroundLineProps {
  s: Schemas["SiteSection"];
  /** Where the line begins and ends, in words. */
  ends: [string, string];
  /** Elevation that is flown over ground of an elevation; undefined: nothing is flown. */
  flown?: (ground: number) => number;
  label: string;
}

/** The ground along a line from the side, what stands near it, and how high one flies over it. */
export function GroundLine({ s, ends, flown, label }: GroundLineProps) {
  const u = useUnits();
  const { ref, width } = useDrawn({ width: 700, height: H });
  const a = axis(s, flown);
  const x = (m: number) => L + (m / Math.max(s.length_m, 1)) * (width - L - R);
  const y = (m: number) => H - B - ((m - a.low) / (a.high - a.low)) * (H - T - B);
  const known = s.steps.some((p) => p.ground_m != null);
  const tops = s.tops.map((t) => {
    const [left, right] = [x(t.from_m), Math.max(x(t.to_m), x(t.from_m) + 6)];
    const head = t.top_m ?? a.high;
    return { ...t, left, right, head };
  });
  const spots = placeLabels(
    tops.map((t) => ({
      key: t.id,
      x: (t.left + t.right) / 2,
      y: y(t.head),
      width: t.name.length * 8.4 + 26,
      height: 19,
      rank: t.head,
      gap: 3,
    })),
    [],
    { left: L, top: 0, width: width - L - R, height: H - B },
  );
  return (
    <svg ref={ref} className="drawn" viewBox={`0 0 ${width} ${H}`} role="img" aria-label={label}>
      {a.ticks.map((m) => (
        <g key={m}>
          <path className="rule" d={`M${L} ${y(m)}H${width - R}`} />
          <text x={L - 6} y={y(m) + 5} textAnchor="end">
            {u.show("length", m)}
          </text>
        </g>
      ))}
      {tops.map((t) => (
        <g key={t.id}>
          <rect
            className={t.top_m == null ? "ink dashed" : "haze"}
            x={t.left}
            width={t.right - t.left}
            y={y(t.head)}
            height={Math.max(y(t.foot_m) - y(t.head), 2)}
          />
        </g>
      ))}
      {known && <path className="area" d={pathOf(s.steps, x, y, H - B)} />}
      {flown && <path className="ink" strokeWidth={3} d={flownOver(s.steps, flown, x, y)} />}
      {tops.map((t) => {
        const b = spots.get(t.id);
        return (
          b && (
            <text key={t.id} x={b.left + b.width / 2} y={b.top + 15} textAnchor="middle">
              {t.name}
              {t.top_m == null && " ?"}
            </text>
          )
        );
      })}
      <text x={L} y={H - 8}>
        {ends[0]}
      </text>
      <text x={width - R} y={H - 8} textAnchor="end">
        {ends[1]}, {u.show("length", s.length_m)}
      </text>
    </svg>
  );
}

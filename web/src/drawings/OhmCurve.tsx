import type { Schemas } from "../api/client";
import { useDrawn } from "./useDrawn";

const H = 130;
const L = 62;

/** Mean resistance of the cells over time. */
export function OhmCurve({ trend }: { trend: Schemas["OhmPoint"][] }) {
  const { ref, width: W } = useDrawn({ width: 520 });
  if (trend.length < 2) return null;
  const t0 = Date.parse(trend[0]!.at);
  const t1 = Date.parse(trend.at(-1)!.at);
  const most = Math.max(...trend.map((p) => p.mohm)) * 1.15;
  const x = (at: string) => L + ((Date.parse(at) - t0) / Math.max(t1 - t0, 1)) * (W - L - 10);
  const y = (v: number) => H - 26 - (v / most) * (H - 34);
  return (
    <svg
      ref={ref}
      className="drawn"
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={`Mean resistance of a cell from ${trend[0]!.mohm.toFixed(1)} to ${trend.at(-1)!.mohm.toFixed(1)} milliohm`}
    >
      {[0, most / 2, most].map((v) => (
        <g key={v}>
          <path className="rule" d={`M${L} ${y(v)}H${W - 8}`} />
          <text x={L - 6} y={y(v) + 5} textAnchor="end">
            {v.toFixed(1)}
          </text>
        </g>
      ))}
      <path
        className="ink"
        d={trend
          .map((p, i) => `${i === 0 ? "M" : "L"}${x(p.at).toFixed(1)} ${y(p.mohm).toFixed(1)}`)
          .join("")}
      />
      {trend.map((p) => (
        <circle key={p.at} className="dot" cx={x(p.at)} cy={y(p.mohm)} r={3} />
      ))}
      <text x={L} y={H - 6}>
        {trend[0]!.at.slice(0, 10)}
      </text>
      <text x={W - 8} y={H - 6} textAnchor="end">
        {trend.at(-1)!.at.slice(0, 10)}
      </text>
    </svg>
  );
}

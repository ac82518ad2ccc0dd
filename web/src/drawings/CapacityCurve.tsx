import type { Schemas } from "../api/client";
import { useDrawn } from "./useDrawn";

export interface CapacityCurveProps {
  standing: Schemas["PackStanding"];
  rated: number;
}

const H = 210;
const L = 62;
const B = 30;

/** Measured capacity over equivalent cycles with its error, the fitted line and its interval to 80 percent. */
export function CapacityCurve({ standing, rated }: CapacityCurveProps) {
  const { ref, width: W } = useDrawn({ width: 520 });
  const { points, capacity } = standing;
  if (points.length === 0) return null;
  const first = points[0]!.cycles;
  const last = points.at(-1)!.cycles;
  const ends = [capacity.late_cycles, capacity.at_cycles, capacity.early_cycles].filter((v) => v != null);
  const to =
    Math.max(last + 5, ...ends.map((v) => Math.min(v, last + 1.6 * Math.max(last - first, 20)))) * 1.02;
  const from = Math.min(first, to - 10);
  const low = Math.min(0.72 * rated, ...points.map((p) => p.mah - p.plus_minus_mah)) / rated;
  const high = Math.max(1.04, ...points.map((p) => (p.mah + p.plus_minus_mah) / rated));
  const x = (c: number) => L + ((c - from) / (to - from)) * (W - L - 8);
  const y = (share: number) => 8 + ((high - share) / (high - low)) * (H - B - 8);
  const line =
    capacity.line_from_mah != null && capacity.line_until_mah != null
      ? { a: capacity.line_from_mah / rated, b: capacity.line_until_mah / rated }
      : undefined;
  const slope = line && last > first ? (line.b - line.a) / (last - first) : 0;
  const end = Math.min(capacity.at_cycles ?? last, to);
  const clip = (c: number | null | undefined) => (c == null ? to : Math.min(c, to));
  return (
    <svg
      ref={ref}
      className="drawn"
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={`Capacity over cycles. ${capacity.sentence}`}
    >
      {[1, 0.9, 0.8].map((s) => (
        <g key={s}>
          <path className={s === 0.8 ? "s-stop" : "rule"} d={`M${L} ${y(s)}H${W - 8}`} />
          <text x={L - 6} y={y(s) + 5} textAnchor="end">
            {s * 100} %
          </text>
        </g>
      ))}
      {line && capacity.at_cycles != null && (
        <path
          className="v-watch"
          fillOpacity={0.55}
          d={`M${x(clip(capacity.early_cycles))} ${y(0.8) - 7}H${x(clip(capacity.late_cycles))}V${y(0.8) + 7}H${x(clip(capacity.early_cycles))}Z`}
        />
      )}
      {points.map((p, i) => (
        <g key={i}>
          <path
            className="thin"
            d={`M${x(p.cycles)} ${y((p.mah - p.plus_minus_mah) / rated)}V${y((p.mah + p.plus_minus_mah) / rated)}`}
          />
          <circle className="dot" cx={x(p.cycles)} cy={y(p.mah / rated)} r={3.5} />
        </g>
      ))}
      {line && (
        <>
          <path className="ink" d={`M${x(first)} ${y(line.a)}L${x(last)} ${y(line.b)}`} />
          {slope < 0 && end > last && (
            <path
              className="ink dashed"
              d={`M${x(last)} ${y(line.b)}L${x(end)} ${y(line.b + slope * (end - last))}`}
            />
          )}
        </>
      )}
      <text x={L} y={H - 6}>
        {Math.round(from)}
      </text>
      <text x={W - 8} y={H - 6} textAnchor="end">
        {Math.round(to)} cycles
      </text>
    </svg>
  );
}

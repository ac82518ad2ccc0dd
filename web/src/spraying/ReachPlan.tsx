import type { Schemas } from "../api/client";
import { useDrawn } from "../drawings/useDrawn";
import { plane, scaleLength, type Spot } from "../drawings/plane";

export interface ReachPlanProps {
  start: Schemas["Place"];
  outline: Schemas["Place"][];
  /** Out and back in each direction. */
  reach: Schemas["Place"][];
  homes: Schemas["HomeCallOut"][];
  farM: number;
  from?: number | null;
  say: (m: number) => string;
  label: string;
}

const path = (s: Spot[]) => `M${s.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}Z`;

/** From above: how far it comes out and back in the wind, and what the packs must show on the way. North is up. */
export function ReachPlan({ start, outline, reach, homes, farM, from, say, label }: ReachPlanProps) {
  const to = plane([start]);
  const spots = reach.map(to);
  const far = Math.max(...spots.map(([x, y]) => Math.hypot(x, y)), 1);
  const last = homes.at(-1)?.distance_m ?? farM;
  const r = Math.max(last * 1.12, far * 1.08);
  const { ref, width } = useDrawn({ width: 430, height: 430 });
  const u = (2 * r * 6.6) / width; // words are 16 px whatever the distance and the screen
  const bar = scaleLength(2 * r);
  return (
    <svg
      ref={ref}
      style={{ maxWidth: 430 }}
      className="drawn framed"
      viewBox={`${-r} ${-r} ${2 * r} ${2 * r}`}
      role="img"
      aria-label={label}
    >
      <path d={path(outline.map(to))} className="area faint" strokeWidth={u * 0.3} />
      {spots.length > 0 && <path d={path(spots)} className="ink" strokeWidth={u * 0.5} />}
      {homes.map((h) => (
        <g key={h.distance_m}>
          <circle
            r={h.distance_m}
            className="thin"
            strokeWidth={u * 0.18}
            strokeDasharray={`${u} ${u * 0.8}`}
          />
          <text y={-h.distance_m - u * 0.5} fontSize={u * 2.5} textAnchor="middle">
            {h.cannot ? "no way home" : `${Math.ceil(h.percent)} %`}
          </text>
          <text y={h.distance_m + u * 2.4} fontSize={u * 2.5} textAnchor="middle" className="soft-fill">
            {say(h.distance_m)}
          </text>
        </g>
      ))}
      <circle r={u * 1.2} className="paper" strokeWidth={u * 0.4} />
      <path
        d={`M${-r + u * 2} ${r - u * 3}v${u}h${bar}v${-u}`}
        strokeWidth={u * 0.3}
        fill="none"
        className="thin"
      />
      <text x={-r + u * 2 + bar / 2} y={r - u * 3} fontSize={u * 2.5} textAnchor="middle">
        {say(bar)}
      </text>
      {from != null && (
        <g transform={`translate(${-r + u * 4} ${-r + u * 5}) rotate(${from})`}>
          <path
            d={`M0 ${-u * 3.4}V${u * 3.4}M${-u} ${u * 2.2}L0 ${u * 3.6}L${u} ${u * 2.2}`}
            strokeWidth={u * 0.4}
            fill="none"
            className="thin"
          />
        </g>
      )}
    </svg>
  );
}

import type { Schemas } from "../../api/client";
import { useDrawn } from "../../drawings/useDrawn";
import { counted } from "../../parts/number";
import { learnedPoints } from "./model";

/** Measured over predicted of each flight, oldest at the left; those left out are hollow. */
export function LearnedPlot({ flights }: { flights: Schemas["LearnedFlight"][] }) {
  const points = learnedPoints(flights);
  const { ref, width } = useDrawn({ width: 480 });
  const [w, h] = [width, 200];
  if (points.length === 0)
    return <p className="soft">No flight has a level of its packs before and after.</p>;
  const low = Math.min(0.6, ...points.map((p) => p.share));
  const high = Math.max(1.4, ...points.map((p) => p.share));
  const x = (i: number) => 44 + ((w - 56) * (i + 0.5)) / points.length;
  const y = (v: number) => h - 14 - ((v - low) / (high - low)) * (h - 28);
  return (
    <svg
      ref={ref}
      style={{ height: h, maxWidth: 560 }}
      className="drawn"
      viewBox={`0 0 ${w} ${h}`}
      role="img"
      aria-label={`Energy of ${counted(points.length, "flight")} against the model`}
    >
      {[0.8, 1, 1.2].map((v) => (
        <g key={v}>
          <line x1={40} x2={w} y1={y(v)} y2={y(v)} className={v === 1 ? "ink" : "rule"} />
          <text x={2} y={y(v) + 5}>
            {Math.round(v * 100)} %
          </text>
        </g>
      ))}
      {points.map((p, i) => (
        <circle key={i} cx={x(i)} cy={y(p.share)} r={5} className={p.counts ? "dot" : "thin"}>
          <title>{`${Math.round(p.share * 100)} % of the model${p.why ? `, left out: ${p.why}` : ""}`}</title>
        </circle>
      ))}
    </svg>
  );
}

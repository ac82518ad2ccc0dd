import type { SVGProps } from "react";
import type { Schemas } from "../api/client";
import { useDrawn } from "../drawings/useDrawn";
import { doingWords, hm, rows } from "./model";

const ink = "var(--bs-body-color)";
const waits = { fill: "url(#waits)", stroke: "var(--watch)" };

/** How each doing is drawn; what is waited for is hatched. */
const looks: Record<Schemas["RotationStretch"]["doing"], SVGProps<SVGRectElement>> = {
  fly: { fill: "var(--solid)", stroke: ink },
  swap: { fill: "var(--metal)", stroke: ink },
  fill: { fill: "var(--metal)", stroke: ink },
  charge: { fill: "var(--clear-wash)", stroke: ink, strokeWidth: 1 },
  cool: { fill: "var(--sheet)", stroke: ink, strokeDasharray: "3 3" },
  "wait-packs": waits,
  "wait-hands": waits,
  "wait-charger": waits,
};

/** The day as it went: a row for each aircraft and each set of packs. What is waited for is hatched. */
export function DayLine({ run }: { run: Schemas["RotationRun"] }) {
  const { ref, width } = useDrawn({ width: 900 });
  const all = rows(run);
  const [left, row, foot] = [96, 30, 30];
  const end = Math.max(run.end_s, ...run.line.map((s) => s.to_s), 1);
  const x = (s: number) => left + (s / end) * (width - left - 12);
  const step = [600, 1800, 3600, 7200, 14400].find((s) => (s / end) * (width - left) > 70) ?? 28800;
  const marks = Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step);
  const height = all.length * row + foot;
  return (
    <svg
      ref={ref}
      className="drawn"
      viewBox={`0 0 ${width} ${height}`}
      style={{ height }}
      role="img"
      aria-label="The day as it went"
    >
      <defs>
        <pattern id="waits" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" className="s-watch" strokeWidth={3} />
        </pattern>
      </defs>
      {marks.map((m) => (
        <g key={m}>
          <line x1={x(m)} x2={x(m)} y1={0} y2={height - foot + 6} className="rule" />
          <text x={x(m)} y={height - 6} textAnchor="middle">
            {hm(m)}
          </text>
        </g>
      ))}
      {all.map((r, i) => (
        <g key={r.name}>
          <text x={0} y={i * row + 20}>
            {r.name}
          </text>
          {r.line.map((s, k) => (
            <rect
              key={k}
              x={x(s.from_s)}
              width={Math.max(1, x(s.to_s) - x(s.from_s))}
              y={i * row + (s.doing === "fill" ? 17 : 5)}
              height={s.doing === "fill" ? 8 : 20}
              {...looks[s.doing]}
            >
              <title>{`${r.name} ${doingWords[s.doing]}, ${hm(s.from_s)} to ${hm(s.to_s)}${s.sortie ? `, flight ${s.sortie}` : ""}`}</title>
            </rect>
          ))}
        </g>
      ))}
    </svg>
  );
}

import type { Schemas } from "../api/client";
import { useDrawn } from "./useDrawn";

const H = 240;
const L = 44;
const R = 16;
const T = 18;
const B = 30;

/** The way home from the side: ground, what stands in it with its uncertainty, the return and the ceiling. */
export function SideView({ w }: { w: Schemas["WayHome"] }) {
  const { ref, width: W } = useDrawn({ width: 700 });
  const ground = w.steps.map((s) => s.ground_m);
  const known = ground.filter((g): g is number => g != null);
  const base = known.length > 0 ? Math.min(...known, w.home_m) : w.home_m;
  const ceiling = (g: number) => g + w.ceiling_m;
  const high = Math.max(
    w.return_m,
    w.home_m + w.need_m,
    ...w.tops.map((t) => (t.top_m ?? t.foot_m) + 2 * t.sigma_m),
    ceiling(base) < w.return_m * 1.4 ? ceiling(base) : 0,
  );
  const top = Math.max(high, w.home_m + 40) + 12;
  const low = base - 6;
  const x = (m: number) => L + (m / Math.max(w.length_m, 1)) * (W - L - R);
  const y = (m: number) => H - B - ((m - low) / (top - low)) * (H - T - B);
  const line = (f: (g: number) => number) =>
    w.steps
      .map((s, i) => (s.ground_m == null ? "" : `${i === 0 ? "M" : "L"}${x(s.along_m)} ${y(f(s.ground_m))}`))
      .join("")
      .replace(/^L/, "M");
  const ticks = [0, 20, 40, 60, 80, 100, 120, 150, 200, 300].filter((h) => w.home_m + h < top);
  return (
    <svg ref={ref} className="drawn" viewBox={`0 0 ${W} ${H}`} role="img" aria-label={words(w)}>
      {ticks.map((h) => (
        <g key={h}>
          <path className="rule" d={`M${L} ${y(w.home_m + h)}H${W - R}`} />
          <text x={L - 6} y={y(w.home_m + h) + 5} textAnchor="end">
            {h}
          </text>
        </g>
      ))}
      <path className="ink" strokeDasharray="3 6" d={line(ceiling)} />
      {w.tops.map((t) => {
        const a = x(t.from_m);
        const width = Math.max(x(t.to_m) - a, 5);
        const head = t.top_m ?? top - 4;
        return (
          <g key={t.id}>
            {t.top_m != null && (
              <rect
                className="haze"
                x={a}
                width={width}
                y={y(t.top_m + 2 * t.sigma_m)}
                height={Math.max(y(t.top_m) - y(t.top_m + 2 * t.sigma_m), 0)}
              />
            )}
            <rect
              className={t.top_m == null ? "ink dashed" : t.id === w.decides_id ? "full" : "haze"}
              x={a}
              width={width}
              y={y(head)}
              height={Math.max(y(t.foot_m) - y(head), 2)}
            />
          </g>
        );
      })}
      <path className="area" d={`${line((g) => g)}L${x(w.length_m)} ${H - B}L${x(0)} ${H - B}Z`} />
      <path
        className="ink"
        strokeWidth={3}
        d={`M${x(0)} ${y(w.home_m + Math.min(w.route_m, w.return_m - w.home_m))}V${y(w.return_m)}H${x(w.length_m)}V${y(w.home_m)}`}
      />
      {w.tops.map((t, i) => (
        <text
          key={t.id}
          x={Math.min((x(t.from_m) + Math.max(x(t.to_m), x(t.from_m) + 5)) / 2, W - 90)}
          y={Math.max(y((t.top_m ?? top - 4) + 2 * t.sigma_m) - 5 - (i % 2) * 16, 13)}
          className={t.id === w.decides_id ? "strong" : undefined}
          textAnchor="middle"
        >
          {t.name}
          {t.top_m == null ? ": height?" : ""}
        </text>
      ))}
      <text className="strong" x={L + 8} y={y(w.return_m) - 6}>
        returns at {Math.round(w.return_m - w.home_m)} m
      </text>
      {w.return_m - w.home_m < w.height_m - 0.5 && (
        <>
          <path className="ink dashed" d={`M${L} ${y(w.home_m + w.height_m)}H${W - R}`} />
          <text className="strong" x={W - R} y={y(w.home_m + w.height_m) - 6} textAnchor="end">
            {Math.round(w.height_m)} m needed
          </text>
        </>
      )}
      <text x={L} y={H - 8}>
        farthest place
      </text>
      <text x={W - R} y={H - 8} textAnchor="end">
        take-off, {Math.round(w.length_m)} m home
      </text>
    </svg>
  );
}

function words(w: Schemas["WayHome"]): string {
  const tops = w.tops.map(
    (t) => `${t.name} ${t.top_m == null ? "of unknown height" : `to ${Math.round(t.top_m - w.home_m)} m`}`,
  );
  return `The way home from the side, ${Math.round(w.length_m)} m long, heights above take-off: ${tops.join(", ") || "nothing stands in it"}; returns at ${Math.round(w.return_m - w.home_m)} m; ${Math.round(w.height_m)} m are needed.`;
}

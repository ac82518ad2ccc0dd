import { useDrawn } from "../drawings/useDrawn";
import { fromMean } from "./checks";

/** Each nozzle against the mean of all and the target, L/min; lines at 5 and 10 percent. */
export function CatchPlot({ caught, target }: { caught: number[]; target: number }) {
  const away = fromMean(caught);
  const mean = caught.reduce((s, v) => s + v, 0) / caught.length;
  const { ref, width } = useDrawn({ width: 600 });
  const [w, h] = [width, 200];
  const most = Math.max(14, ...away.map(Math.abs));
  const y = (percent: number) => h / 2 - (percent / most) * (h / 2 - 22);
  const each = target / caught.length;
  const aim = mean ? (each / mean - 1) * 100 : 0;
  return (
    <svg
      ref={ref}
      style={{ height: h, maxWidth: 720 }}
      className="drawn"
      viewBox={`0 0 ${w} ${h}`}
      role="img"
      aria-label={`Catch test of ${caught.length} nozzles`}
    >
      {[-10, -5, 5, 10].map((p) => (
        <g key={p}>
          <line
            x1={0}
            x2={w}
            y1={y(p)}
            y2={y(p)}
            className="rule"
            strokeDasharray={Math.abs(p) === 5 ? "3 5" : "8 4"}
          />
          <text x={2} y={y(p) - 3}>
            {p > 0 ? `+${p}` : p} %
          </text>
        </g>
      ))}
      <line x1={0} x2={w} y1={y(0)} y2={y(0)} className="ink" />
      {Math.abs(aim) < most && (
        <line x1={0} x2={w} y1={y(aim)} y2={y(aim)} className="thin" strokeDasharray="2 3" />
      )}
      {away.map((p, i) => {
        const x = (w / caught.length) * (i + 0.5) + 12;
        const bad = Math.abs(p) > 10 ? "stop" : Math.abs(p) > 5 ? "watch" : "clear";
        return (
          <g key={i}>
            <line x1={x} x2={x} y1={y(0)} y2={y(p)} className={`s-${bad}`} strokeWidth={16} />
            <text x={x} y={p >= 0 ? y(p) - 5 : y(p) + 16} textAnchor="middle">
              {caught[i]!.toFixed(2)}
            </text>
            <text x={x} y={h - 3} textAnchor="middle">
              {i + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

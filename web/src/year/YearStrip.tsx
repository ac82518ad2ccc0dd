import { useDrawn } from "../drawings/useDrawn";
import { months, type Week, weekWords, yearWords } from "./model";

const [tall, foot] = [44, 20];

/**
 * The year of an aircraft as a strip of weeks: how much it flew as bars, work that was
 * signed as notches under them, and weeks in which something stood open as hatched.
 */
export function YearStrip({ weeks, name }: { weeks: Week[]; name: string }) {
  const most = Math.max(...weeks.map((w) => w.flights), 1);
  const { ref, width } = useDrawn({ width: 280 }, 150);
  const cell = width / weeks.length;
  return (
    <svg
      ref={ref}
      className="drawn yearstrip"
      viewBox={`0 0 ${width} ${tall + foot}`}
      role="img"
      aria-label={`The year of ${name}: ${yearWords(weeks)}`}
    >
      {weeks.map((w, i) => {
        const h = w.flights ? Math.max((w.flights / most) * (tall - 12), 3) : 0;
        return (
          <g key={w.from} transform={`translate(${i * cell} 0)`}>
            <title>{weekWords(w)}</title>
            <rect className="none" width={cell} height={tall - 9} />
            {w.down && (
              <path className="s-stop" strokeWidth={1.5} d={`M0 ${tall - 9}L${cell} 0M0 14L${cell} 0`} />
            )}
            <rect className="dot" x={cell * 0.15} y={tall - 9 - h} width={cell * 0.7} height={h} />
            {w.work > 0 && (
              <path
                className="soft-fill"
                d={`M${cell / 2} ${tall - 8}l${Math.min(cell / 2, 5)} 8h${-2 * Math.min(cell / 2, 5)}z`}
              />
            )}
            {w.stops > 0 && <path className="s-stop" d={`M0 2h${cell}M0 6h${cell}`} />}
          </g>
        );
      })}
      <path className="ink" d={`M0 ${tall - 9}H${width}`} />
      {months(weeks.map((w) => w.from))
        .filter((_, i) => i % 3 === 0)
        .map((m) => (
          <text key={`${m.at}`} x={m.at * cell} y={tall + foot - 4}>
            {m.name}
          </text>
        ))}
    </svg>
  );
}

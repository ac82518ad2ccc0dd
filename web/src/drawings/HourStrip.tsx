import type { Schemas } from "../api/client";
import { useDrawn } from "./useDrawn";

const L = 52;
const ROWS = 118;

/** By day the paper shows, by night it is dark. */
const lights = { day: "paper", twilight: "metal-fill", night: "soft-fill" } as const;

export interface HourStripProps {
  hours: Schemas["SkyHour"][];
  clock: (iso: string) => string;
  now: number;
  limit?: number;
}

/** The hours to come: light, wind at flight height, and a flag for each. */
export function HourStrip({ hours, clock, now, limit }: HourStripProps) {
  const { ref, width: W } = useDrawn({ width: 700 });
  const w = (W - L) / Math.max(hours.length, 1);
  const named = [3, 6, 12].find((n) => n * w >= 60) ?? 24; // hours between two that are named
  const most = Math.max(12, ...hours.map((h) => h.gust_ms ?? 0));
  const y = (v: number) => 96 - (v / most) * 62;
  const start = hours[0] ? Date.parse(hours[0].at) : 0;
  const nowX = L + ((now - start) / 3_600_000) * w;
  const flags = { clear: "M0 -7L13 0L0 7Z", watch: "M0 -7H14L9 0L14 7H0Z", stop: "M0 -7H13V7H0Z" };
  return (
    <svg
      ref={ref}
      className="drawn"
      viewBox={`0 0 ${W} ${ROWS + 34}`}
      role="img"
      aria-label={words(hours, clock)}
    >
      <text x={0} y={16}>
        light
      </text>
      <text x={0} y={60}>
        m/s
      </text>
      {hours.map((h, i) => {
        const x = L + i * w;
        return (
          <g key={h.at}>
            <title>{`${clock(h.at)}: ${h.verdict}. ${h.why}`}</title>
            <rect className={lights[h.light]} x={x} y={4} width={w} height={16} />
            {h.wind_ms == null || h.gust_ms == null ? (
              <text x={x + w / 2} y={92} textAnchor="middle">
                ?
              </text>
            ) : (
              <>
                <rect
                  className="haze"
                  x={x + w * 0.2}
                  y={y(h.gust_ms)}
                  width={w * 0.6}
                  height={Math.max(y(h.wind_ms) - y(h.gust_ms), 1)}
                />
                <rect
                  className="full"
                  x={x + w * 0.2}
                  y={y(h.wind_ms)}
                  width={w * 0.6}
                  height={Math.max(96 - y(h.wind_ms), 1)}
                />
              </>
            )}
            <g transform={`translate(${x + w / 2 - 6} ${ROWS - 6})`}>
              <path className={`v-${h.verdict}`} d={flags[h.verdict]} />
              {h.verdict === "stop" && <path stroke="var(--invert)" strokeWidth={4} d="M1.5 0H11.5" />}
            </g>
            {i % named === 0 && (
              <text x={x} y={ROWS + 24}>
                {clock(h.at)}
              </text>
            )}
          </g>
        );
      })}
      {limit !== undefined && limit < most && (
        <>
          <path className="ink dashed" d={`M${L} ${y(limit)}H${W}`} />
          <text x={L - 6} y={y(limit) + 5} textAnchor="end">
            limit
          </text>
        </>
      )}
      {nowX >= L && nowX < W && <path className="ink" d={`M${nowX} 2V${ROWS + 6}`} />}
    </svg>
  );
}

function words(hours: Schemas["SkyHour"][], clock: (iso: string) => string): string {
  const runs: string[] = [];
  let from = 0;
  hours.forEach((h, i) => {
    if (i + 1 === hours.length || hours[i + 1]?.verdict !== h.verdict) {
      const first = hours[from];
      if (first) runs.push(`${h.verdict} from ${clock(first.at)}`);
      from = i + 1;
    }
  });
  return `The hours to come: ${runs.join(", ")}`;
}

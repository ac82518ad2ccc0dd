import type { Schemas } from "../api/client";
import { useDrawn } from "./useDrawn";

export interface ChargeTimelineProps {
  jobs: Schemas["TonightJob"][];
  start: string;
  readyBy: string;
  time: (iso: string) => string;
}

const L = 120;
const ROW = 34;

/** The evening as lanes, one per channel, with a bar per pack and the line by which all must be ready. */
export function ChargeTimeline({ jobs, start, readyBy, time }: ChargeTimelineProps) {
  const { ref, width: W } = useDrawn({ width: 760 });
  const lanes = [...new Set(jobs.map((j) => `${j.charger} ${j.channel}`))].sort();
  const t0 = Date.parse(start);
  const ready = Date.parse(readyBy);
  const t1 = Math.max(ready, ...jobs.map((j) => Date.parse(j.end))) + 20 * 60_000;
  const x = (t: number) => L + ((t - t0) / (t1 - t0)) * (W - L - 6);
  const h = lanes.length * ROW + 30;
  const perHour = (W - L - 6) / ((t1 - t0) / 3_600_000);
  const step = [1, 2, 3, 6].find((n) => n * perHour >= 60) ?? 12;
  const hours: number[] = [];
  for (let t = Math.ceil(t0 / 3_600_000) * 3_600_000; t < t1; t += step * 3_600_000) hours.push(t);
  return (
    <svg
      ref={ref}
      className="drawn my-2"
      viewBox={`0 0 ${W} ${h}`}
      role="img"
      aria-label={`Charging plan: ${jobs.map((j) => `${j.label} on ${j.charger} ${j.channel} until ${time(j.end)}`).join("; ")}`}
    >
      {hours.map((t) => (
        <g key={t}>
          <path className="rule" d={`M${x(t)} 4V${h - 22}`} />
          <text x={x(t)} y={h - 5} textAnchor="middle">
            {time(new Date(t).toISOString())}
          </text>
        </g>
      ))}
      {lanes.map((lane, i) => (
        <text key={lane} x={0} y={i * ROW + 25}>
          {lane}
        </text>
      ))}
      {jobs.map((j) => {
        const row = lanes.indexOf(`${j.charger} ${j.channel}`);
        const a = x(Date.parse(j.start));
        const w = Math.max(x(Date.parse(j.end)) - a - 2, 3);
        return (
          <g key={j.pack_id}>
            <rect
              className={Date.parse(j.end) > ready ? "v-stop" : "full"}
              x={a}
              y={row * ROW + 6}
              width={w}
              height={ROW - 10}
            />
            {w > 26 && (
              <text className="on" x={a + w / 2} y={row * ROW + 24} textAnchor="middle">
                {j.label}
              </text>
            )}
          </g>
        );
      })}
      <path className="s-stop dashed" d={`M${x(ready)} 0V${h - 22}`} />
    </svg>
  );
}

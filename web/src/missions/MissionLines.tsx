import type { Schemas } from "../api/client";
import type { Spot } from "../drawings/plane";

type To = (p: Schemas["Place"]) => Spot;

export const path = (s: Spot[], closed = false) =>
  s.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("") + (closed ? "Z" : "");

export interface FlightLinesProps {
  f: Schemas["MissionFlight"];
  to: To;
  u: number;
  /** Where its number stands. */
  label?: Spot;
  on: boolean;
  onPress?: (number: number) => void;
}

/** Where a flight begins on the drawing. */
export function begins(f: Schemas["MissionFlight"], to: To): Spot | undefined {
  const first = f.pieces[0]?.from ?? f.stops[0]?.at;
  return first && to(first);
}

/** The lines of a flight in the order they are flown, or its places with where it looks. */
export function FlightLines({ f, to, u, label, on, onPress }: FlightLinesProps) {
  const way = f.way.map(to);
  return (
    <g
      opacity={on ? 1 : 0.6}
      {...(onPress && {
        role: "button",
        tabIndex: 0,
        "aria-pressed": on,
        "aria-label": `Flight ${f.number}, ${f.pictures} pictures`,
        onClick: () => onPress(f.number),
        onKeyDown: (e) => (e.key === "Enter" || e.key === " ") && (e.preventDefault(), onPress(f.number)),
      })}
    >
      {on && way.length > 0 && (
        <path d={path(way)} className="ink" strokeWidth={u * 0.2} strokeOpacity={0.45} />
      )}
      {f.pieces.map((x, i) => (
        <path
          key={i}
          d={path([to(x.from), to(x.to)])}
          className={f.flown ? "s-clear" : on ? "ink" : "thin"}
          strokeWidth={u * (on ? 0.5 : 0.35)}
        />
      ))}
      {f.stops.map((x, i) => {
        const [cx, cy] = to(x.at);
        const a = (x.heading_deg * Math.PI) / 180;
        return (
          <path
            key={i}
            d={`M${cx} ${cy}l${Math.sin(a) * u * 1.5} ${-Math.cos(a) * u * 1.5}`}
            className={x.lee ? "s-watch" : on ? "ink" : "thin"}
            strokeWidth={u * (on ? 0.5 : 0.3)}
          />
        );
      })}
      {label && (
        <text x={label[0]} y={label[1] - u * 0.6} fontSize={u * 2.5} textAnchor="middle">
          {f.number}
        </text>
      )}
    </g>
  );
}

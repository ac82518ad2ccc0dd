import type { Schemas } from "../api/client";
import { shade } from "../missions/model";
import { box, plane, scaleLength, type Spot } from "../spraying/model";
import { Scale } from "./Scale";
import { useDrawn } from "./useDrawn";

type Plan = Schemas["MissionPlan"];
type To = (p: Schemas["Place"]) => Spot;

export interface MissionMapProps {
  p: Plan;
  /** The flight that is drawn strongly. */
  flight?: number;
  onFlight?: (number: number) => void;
  /** Draws what the aircraft holds beside what is planned. */
  held?: Schemas["MissionRead"];
  /** Draws how often the ground was seen, and what is missing. */
  taken?: Schemas["PicturesTaken"];
  label: string;
}

const path = (s: Spot[], closed = false) =>
  s.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("") + (closed ? "Z" : "");

/** A mission from above: what is pictured, the lines or places of each flight, where to take off. North is up. */
export function MissionMap({ p, flight, onFlight, held, taken, label }: MissionMapProps) {
  const to = plane(p.outline);
  const outline = p.outline.map(to);
  const lines = p.flights.flatMap((f) => [
    ...f.pieces.flatMap((x) => [to(x.from), to(x.to)]),
    ...f.stops.map((x) => to(x.at)),
  ]);
  const starts = p.places.map((x) => ({ ...x, spot: to(x.place) }));
  const all = [...outline, ...lines, ...starts.filter((s) => s.job).map((s) => s.spot)];
  const reach = Math.max(...all.map(([x, y]) => Math.hypot(x, y)), 20);
  const near = (s: Spot) => Math.hypot(s[0], s[1]) < 1.6 * reach;
  const { ref, width, height } = useDrawn({ width: 650, height: 420 });
  const view = box([...all, ...starts.map((s) => s.spot).filter(near)], reach * 0.06);
  const u = 6.6 * Math.max(view[2] / Math.max(width - 99, 100), view[3] / Math.max(height - 27, 100));
  view[0] -= u * 9;
  view[2] += u * 15;
  view[1] -= u * 4;
  view[3] += u * 8;
  return (
    <svg
      ref={ref}
      className="fieldplan missionmap"
      viewBox={view.map((v) => v.toFixed(1)).join(" ")}
      role="group"
      aria-label={label}
    >
      <path
        d={path(outline, p.feature_shape === "area")}
        className={p.feature_shape === "area" ? "f-outline" : "m-line"}
        strokeWidth={u * 0.4}
      />
      {p.holes.map((h, i) => (
        <path key={i} d={path(h.map(to), true)} className="f-keep" strokeWidth={u * 0.4} />
      ))}
      {p.things.map((k, i) => (
        <path key={i} d={path(k.places.map(to), k.area)} className="f-keep" strokeWidth={u * 0.5}>
          <title>{k.name}</title>
        </path>
      ))}
      {taken && <Overlap t={taken} to={to} />}
      {p.flights.map((f) => (
        <FlightLines key={f.number} f={f} to={to} u={u} on={f.number === flight} onPress={onFlight} />
      ))}
      {held && (
        <path
          d={path(held.places.map(to))}
          className="m-held"
          strokeWidth={u * 0.5}
          strokeDasharray={`${u} ${u * 0.7}`}
        />
      )}
      {taken?.gaps.map((g, i) => (
        <path
          key={i}
          d={path((g.ring.length ? g.ring : [g.from]).map(to), true)}
          className="m-gap"
          strokeWidth={u * 0.5}
        >
          <title>without a picture</title>
        </path>
      ))}
      {starts
        .filter((s) => near(s.spot))
        .map((x) => (
          <g key={x.id} transform={`translate(${x.spot[0]} ${x.spot[1]})`}>
            <circle r={u * 1.4} className="f-start" strokeWidth={u * (x.job ? 0.5 : 0.25)} />
            <title>{x.name}</title>
          </g>
        ))}
      {p.parts
        .filter((x) => !x.take_off_id)
        .map((x, i) => {
          const [cx, cy] = to(x.take_off_at);
          return (
            <path
              key={i}
              d={`M${cx} ${cy - u * 1.8}l${u * 1.6} ${u * 2.8}h${-u * 3.2}z`}
              className="m-top"
              strokeWidth={u * 0.4}
            >
              <title>{x.sentence}</title>
            </path>
          );
        })}
      <Scale view={view} bar={scaleLength(view[2])} u={u} from={p.wind_from_deg} />
    </svg>
  );
}

interface LinesProps {
  f: Schemas["MissionFlight"];
  to: To;
  u: number;
  on: boolean;
  onPress?: (number: number) => void;
}

/** The lines of a flight in the order they are flown, or its places with where it looks. */
function FlightLines({ f, to, u, on, onPress }: LinesProps) {
  const first = f.pieces[0]?.from ?? f.stops[0]?.at;
  const way = f.pieces.flatMap((x) => [to(x.from), to(x.to)]);
  return (
    <g
      className={`m-flight${on ? " on" : ""}${f.flown ? " flown" : ""}`}
      {...(onPress && {
        role: "button",
        tabIndex: 0,
        "aria-pressed": on,
        "aria-label": `Flight ${f.number}, ${f.pictures} pictures`,
        onClick: () => onPress(f.number),
        onKeyDown: (e) => (e.key === "Enter" || e.key === " ") && (e.preventDefault(), onPress(f.number)),
      })}
    >
      {on && way.length > 0 && <path d={path(way)} className="m-way" strokeWidth={u * 0.2} />}
      {f.pieces.map((x, i) => (
        <path
          key={i}
          d={path([to(x.from), to(x.to)])}
          className="m-piece"
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
            className={x.lee ? "m-stop lee" : "m-stop"}
            strokeWidth={u * (on ? 0.5 : 0.3)}
          />
        );
      })}
      {first && (
        <text x={to(first)[0]} y={to(first)[1] - u * 0.6} fontSize={u * 2.5} textAnchor="middle">
          {f.number}
        </text>
      )}
    </g>
  );
}

/** How often each cell of the ground was seen: the fuller, the darker; what was not seen stays empty. */
function Overlap({ t, to }: { t: Schemas["PicturesTaken"]; to: To }) {
  const o = t.overlap;
  if (o.columns === 0 || o.views.length === 0) return null;
  const [x0, y0] = to(o.south_west);
  const [x1, y1] = to(o.north_east);
  const [w, h] = [(x1 - x0) / o.columns, (y0 - y1) / o.rows];
  return (
    <g className="m-overlap">
      {o.views.map((v, i) => {
        const s = shade(v, t.views);
        if (s === undefined || s === 0) return null;
        return (
          <rect
            key={i}
            x={x0 + (i % o.columns) * w}
            y={y0 - (Math.floor(i / o.columns) + 1) * h}
            width={w * 1.02}
            height={h * 1.02}
            opacity={(0.12 + 0.4 * s).toFixed(2)}
          />
        );
      })}
    </g>
  );
}

import type { Schemas } from "../api/client";
import { box, plane, scaleLength, type Spot } from "../drawings/plane";
import { apart } from "./model";
import { begins, FlightLines, path } from "./MissionLines";
import { Overlap } from "./Overlap";
import { Scale } from "../drawings/Scale";
import { useDrawn } from "../drawings/useDrawn";

type Plan = Schemas["MissionPlan"];

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
  const firsts = p.flights.map((f) => begins(f, to));
  const spots = apart(
    firsts.filter((s) => s !== undefined),
    u * 2.6,
  );
  const labels = firsts.map((s) => s && spots.shift());
  view[0] -= u * 9;
  view[2] += u * 15;
  view[1] -= u * 4;
  view[3] += u * 8;
  return (
    <svg
      ref={ref}
      className="drawn framed"
      viewBox={view.map((v) => v.toFixed(1)).join(" ")}
      role="group"
      aria-label={label}
    >
      <path
        d={path(outline, p.feature_shape === "area")}
        className={p.feature_shape === "area" ? "area faint" : "ink"}
        strokeWidth={u * 0.4}
      />
      {p.holes.map((h, i) => (
        <path key={i} d={path(h.map(to), true)} className="shut" strokeWidth={u * 0.4} />
      ))}
      {p.things.map((k, i) => (
        <path key={i} d={path(k.places.map(to), k.area)} className="shut" strokeWidth={u * 0.5}>
          <title>{k.name}</title>
        </path>
      ))}
      {taken && <Overlap t={taken} to={to} />}
      {p.flights.map((f, i) => (
        <FlightLines
          key={f.number}
          f={f}
          to={to}
          u={u}
          label={labels[i]}
          on={f.number === flight}
          onPress={onFlight}
        />
      ))}
      {held && (
        <path
          d={path(held.places.map(to))}
          className="s-stop"
          strokeWidth={u * 0.5}
          strokeDasharray={`${u} ${u * 0.7}`}
        />
      )}
      {taken?.gaps.map((g, i) => (
        <path
          key={i}
          d={path((g.ring.length ? g.ring : [g.from]).map(to), true)}
          className="gap"
          strokeWidth={u * 0.5}
        >
          <title>without a picture</title>
        </path>
      ))}
      {starts
        .filter((s) => near(s.spot))
        .map((x) => (
          <g key={x.id} transform={`translate(${x.spot[0]} ${x.spot[1]})`}>
            <circle r={u * 1.4} className="paper" strokeWidth={u * (x.job ? 0.5 : 0.25)} />
            <title>{x.name}</title>
          </g>
        ))}
      {p.parts
        .filter((x) => x.top_at)
        .map((x, i) => {
          const [cx, cy] = to(x.top_at!);
          return (
            <path
              key={i}
              d={`M${cx} ${cy - u * 1.8}l${u * 1.6} ${u * 2.8}h${-u * 3.2}z`}
              className="paper"
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

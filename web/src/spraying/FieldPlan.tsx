import type { Schemas } from "../api/client";
import { Scale } from "../drawings/Scale";
import { useDrawn } from "../drawings/useDrawn";
import { box, plane, scaleLength, type Spot } from "../drawings/plane";
import { PassBand, SortieNumbers, type BandProps } from "./PassBand";

export interface FieldPlanProps {
  plan: Schemas["SprayPlan"];
  /** Passes that are chosen. */
  chosen?: number[];
  onPass?: (pass: number) => void;
  label: string;
}

const path = (s: Spot[], closed: boolean) =>
  s.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("") + (closed ? "Z" : "");

/** A field from above: its passes by sortie, what is sprayed, what waits for another wind. North is up. */
export function FieldPlan({ plan: p, chosen = [], onPass, label }: FieldPlanProps) {
  const to = plane(p.outline);
  const outline = p.outline.map(to);
  const start = to(p.start);
  const refills = (p.places ?? []).filter((x) => !x.job && p.wish.refills?.includes(x.id));
  const near = [
    ...p.sensitive.flatMap((s) => s.places.map(to)),
    ...refills.map((x) => to(x.place)),
    start,
  ].filter(([x, y]) => Math.hypot(x, y) < 3 * Math.max(...outline.map(([a, b]) => Math.hypot(a, b))));
  const width = Math.max(...outline.map((s) => s[0])) - Math.min(...outline.map((s) => s[0]));
  const { ref, width: drawn, height } = useDrawn({ width: 650, height: 420 });
  const view = box([...outline, ...near], Math.max(12, width * 0.04));
  // Words are 16 px whatever the field and the screen: u is so many metres.
  const u = 6.6 * Math.max(view[2] / Math.max(drawn - 99, 100), view[3] / Math.max(height - 27, 100));
  view[0] -= u * 9; // room at the left for north and wind
  view[2] += u * 15; // and at the right and above for names
  view[1] -= u * 4;
  view[3] += u * 4;
  const bar = scaleLength(view[2]);
  return (
    <svg
      ref={ref}
      className="drawn framed"
      viewBox={view.map((v) => v.toFixed(1)).join(" ")}
      role="group"
      aria-label={label}
    >
      <path d={path(outline, true)} className="area faint" strokeWidth={u * 0.4} />
      {p.passes.map((x, i) => (
        <PassBand
          key={i}
          i={i}
          x={x}
          plan={p}
          to={to}
          u={u}
          on={chosen.includes(i)}
          onPress={onPass && (() => onPass(i))}
        />
      ))}
      {p.keep_outs.map((k, i) => (
        <path key={i} d={path(k.places.map(to), k.area)} className="shut" strokeWidth={u * 0.5}>
          <title>{k.name}</title>
        </path>
      ))}
      {p.sensitive.map((k, i) => (
        <Sensitive key={i} k={k} to={to} u={u} />
      ))}
      <SortieNumbers plan={p} to={to} u={u} />
      {[{ id: "", name: "Take-off and refill", spot: start }]
        .concat(refills.map((x) => ({ id: x.id, name: x.name, spot: to(x.place) })))
        .map((x) => (
          <g key={x.id} transform={`translate(${x.spot[0]} ${x.spot[1]})`}>
            <circle r={u * 1.6} className="paper" strokeWidth={u * 0.5} />
            <circle r={u * 0.5} className="dot" />
            <title>{x.name}</title>
          </g>
        ))}
      <Scale view={view} bar={bar} u={u} from={p.wind_from_deg} />
    </svg>
  );
}

function Sensitive({ k, to, u }: { k: Schemas["KeptOut"]; to: BandProps["to"]; u: number }) {
  const spots = k.places.map(to);
  const [x, y] = spots[0] ?? [0, 0];
  return (
    <g className="care">
      {spots.length > 1 ? (
        <path d={path(spots, k.area)} strokeWidth={u * 0.5} strokeDasharray={`${u} ${u * 0.6}`} />
      ) : (
        <path
          d={`M${x} ${y - u * 1.8}L${x + u * 1.7} ${y + u * 1.2}H${x - u * 1.7}Z`}
          strokeWidth={u * 0.5}
        />
      )}
      <text x={x} y={y - u * 2.4} fontSize={u * 2.5} textAnchor="middle">
        {k.name}
      </text>
    </g>
  );
}

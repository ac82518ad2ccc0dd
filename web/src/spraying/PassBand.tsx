import type { Schemas } from "../api/client";
import { type Spot } from "../drawings/plane";
import { isDone, sprayedOf } from "./model";

const between = (a: Spot, b: Spot, t: number): Spot => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];

export interface BandProps {
  i: number;
  x: Schemas["SprayPass"];
  plan: Schemas["SprayPlan"];
  to: (p: Schemas["Place"]) => Spot;
  u: number;
  on: boolean;
  onPress?: () => void;
}

/** A pass as the band that it sprays. */
export function PassBand({ i, x, plan, to, u, on, onPress }: BandProps) {
  const [a, b] = [to(x.from), to(x.to)];
  const done = isDone(plan, i);
  const odd = x.sortie % 2 === 1;
  const said = `Pass ${i + 1}${x.edge ? " along an edge" : ""}, ${Math.round(x.length_m)} m${
    done ? ", sprayed" : x.sortie ? `, flight ${x.sortie}` : ""
  }${x.waits ? `, waits: drift would reach ${x.waits}` : ""}`;
  return (
    <g
      {...(onPress && {
        role: "button",
        tabIndex: 0,
        "aria-pressed": on,
        "aria-label": said,
        onClick: onPress,
        onKeyDown: (e) => (e.key === "Enter" || e.key === " ") && (e.preventDefault(), onPress()),
      })}
    >
      <title>{said}</title>
      <line
        x1={a[0]}
        y1={a[1]}
        x2={b[0]}
        y2={b[1]}
        className={on ? "ink" : "thin"}
        strokeWidth={plan.settings.swath_m * 0.86}
        strokeOpacity={on ? 0.75 : done ? 0 : odd ? 0.22 : 0.42}
      />
      {sprayedOf(plan, i).map(([f, t]) => {
        const [c, d] = [between(a, b, f), between(a, b, t)];
        return (
          <line
            key={f}
            x1={c[0]}
            y1={c[1]}
            x2={d[0]}
            y2={d[1]}
            className="s-clear"
            strokeOpacity={0.55}
            strokeWidth={plan.settings.swath_m * 0.86}
          />
        );
      })}
      <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} className="ink" strokeWidth={u * 0.22} />
      {x.waits && !done && (
        <line
          x1={a[0]}
          y1={a[1]}
          x2={b[0]}
          y2={b[1]}
          className="s-watch"
          strokeWidth={u * 0.7}
          strokeDasharray={`${u * 0.7} ${u * 1.4}`}
        />
      )}
    </g>
  );
}

/** The number of each flight, where it begins to spray. */
export function SortieNumbers({ plan, to, u }: Pick<BandProps, "plan" | "to" | "u">) {
  return plan.sorties.slice(0, 40).map((s, i) => {
    const first = s.legs[0];
    if (!first) return null;
    const [x, y] = between(to(first.from), to(first.to), 0.06);
    return (
      <g key={i} transform={`translate(${x} ${y})`}>
        <circle r={u * 1.9} className="paper" strokeWidth={u * 0.25} />
        <text y={u * 0.85} fontSize={u * 2.5} textAnchor="middle">
          {i + 1}
        </text>
      </g>
    );
  });
}

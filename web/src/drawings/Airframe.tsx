import { useDrawn } from "./useDrawn";
import { Body, type TypeEntry } from "./AirframeBody";
import { bad, onTop, place, readable, Station, type AirframeProps } from "./AirframeStation";

/** Half the width and length of an airframe in metres. */
export function extent(t: TypeEntry): number {
  const g = t.profile.geometry;
  const rotors = (g.arm_m ?? 0) + (g.rotor_diameter_m ?? 0) / 2;
  return Math.max(rotors, (g.span_m ?? 0) / 2, (g.length_m ?? 0) * 0.62) * 1.06;
}

/** The plan of an airframe, drawn from the geometry of its type, nose up. */
export function Airframe(p: AirframeProps) {
  const half = (p.span ?? extent(p.type) * 2) / 2;
  const u = half / 100; // a hundredth of the half width: line widths follow the scale
  const { ref, width, height } = useDrawn({ width: 540 });
  const px = Math.min(width, height) / (half * 2); // of one metre
  // Numbers are read at arm's length: where all of them would be too small, only the one in hand and those that matter have theirs.
  const roomy = 6.2 * u * 1.15 * px >= readable;
  const stations = p.type.stations.filter((s) => s.kind !== "controller");
  const spots = p.plain ? new Map(stations.map((s) => [s.id, { x: s.x, y: -s.y }])) : place(stations, half);
  const path = (p.path ?? []).map((id) => spots.get(id)).filter((s) => s !== undefined);
  return (
    <svg
      ref={ref}
      className="drawn airframe"
      viewBox={`${-half} ${-half} ${half * 2} ${half * 2}`}
      style={
        p.height === undefined
          ? { height: "100%", width: "100%" }
          : { width: "100%", aspectRatio: 1, maxHeight: p.height } // on a phone no higher than it is wide
      }
      role={p.onSelect ? "group" : "img"}
      aria-label={p.label}
    >
      <Body type={p.type} u={u} />
      {path.length > 1 && (
        <polyline
          className="thin"
          strokeWidth={u * 0.9}
          style={{ strokeDasharray: `${u * 3} ${u * 2.2}` }}
          points={path.map((s) => `${s.x},${s.y}`).join(" ")}
        />
      )}
      {p.marks &&
        [...stations]
          .sort((a, b) => onTop(p.marks?.[a.id]) - onTop(p.marks?.[b.id]))
          .map((s) => {
            const at = spots.get(s.id)!;
            const plain = bad(p.marks?.[s.id]) ? 6 : 1.5;
            return (
              <Station
                key={s.id}
                s={s}
                x={at.x}
                y={at.y}
                r={u * (p.plain ? plain : p.onSelect || p.path ? 6.2 : 4.6)}
                least={roomy || p.plain ? 0 : readable / 1.15 / px}
                p={p}
              />
            );
          })}
    </svg>
  );
}

import { memo } from "react";
import type { Schemas } from "../api/client";

export type TypeEntry = Schemas["TypeEntry"];

type Geometry = Schemas["Geometry"];

/** What does not change while marks do. */
export const Body = memo(function Body({ type, u }: { type: TypeEntry; u: number }) {
  const g = type.profile.geometry;
  return (
    <>
      {g.kind !== "multirotor" && <Wing g={g} u={u} />}
      {(g.rotors ?? 0) > 0 && <Rotors type={type} u={u} />}
      {g.kind === "multirotor" && <Hub g={g} u={u} />}
    </>
  );
});

function Rotors({ type, u }: { type: TypeEntry; u: number }) {
  const g = type.profile.geometry;
  const motors = type.stations.filter((s) => s.kind === "motor" && s.id !== "motor-drive");
  const disc = (g.rotor_diameter_m ?? 0) / 2;
  return (
    <g>
      {motors.map((m, i) => (
        <g key={m.id}>
          <path className="ink" d={`M0 0L${m.x} ${-m.y}`} strokeWidth={u * 2.2} />
          <circle
            className="thin"
            cx={m.x}
            cy={-m.y}
            r={disc}
            strokeWidth={u * 0.6}
            style={{ strokeDasharray: `${u * 2} ${u * 3}` }}
          />
          <Blades
            x={m.x}
            y={-m.y}
            r={disc}
            u={u}
            across={motors.slice(0, i).some((o) => o.x === m.x && o.y === m.y)}
          />
        </g>
      ))}
    </g>
  );
}

/** A propeller; the lower one of a pair stands across the upper one. */
function Blades({ x, y, r, u, across }: { x: number; y: number; r: number; u: number; across: boolean }) {
  const a = Math.atan2(y, x) + (across ? 0 : Math.PI / 2);
  const c = Math.cos(a) * r;
  const s = Math.sin(a) * r;
  return <path className="ink" d={`M${x - c} ${y - s}L${x + c} ${y + s}`} strokeWidth={u * 0.9} />;
}

function Hub({ g, u }: { g: Geometry; u: number }) {
  const r = (g.arm_m ?? 1) * 0.36;
  const n = Math.max(g.rotors ?? 4, 4);
  const pts = Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * (i + 0.5)) / n;
    return `${Math.sin(a) * r},${-Math.cos(a) * r}`;
  });
  return (
    <g>
      <polygon className="area" points={pts.join(" ")} strokeWidth={u} />
      <path
        className="ink"
        d={`M${-r * 0.28} ${-r * 1.15}L0 ${-r * 1.55}L${r * 0.28} ${-r * 1.15}`}
        strokeWidth={u}
      />
    </g>
  );
}

function plainTail(b: number, c: number, tail: number): string {
  return `M0 ${tail - c * 0.35}L${b * 0.27} ${tail}V${tail + c * 0.25}H${-b * 0.27}V${tail}Z`;
}

/** Two surfaces in a V, seen from above. */
function vTail(b: number, c: number, tail: number): string {
  const half = (s: number) =>
    `M0 ${tail - c * 0.35}L${s * b * 0.24} ${tail + c * 0.3}V${tail + c * 0.55}L0 ${tail + c * 0.1}Z`;
  return half(1) + half(-1);
}

function Wing({ g, u }: { g: Geometry; u: number }) {
  const b = (g.span_m ?? 1) / 2;
  const c = g.chord_m ?? 0.2;
  const l = g.length_m ?? 1;
  const w = l * 0.055;
  const tail = l * 0.5;
  const wing = (s: number) =>
    `M${s * w * 0.8} ${-c * 0.55}L${s * b} ${-c * 0.2}Q${s * b * 1.015} ${c * 0.1} ${s * b} ${c * 0.35}L${s * w * 0.8} ${c * 0.5}Z`;
  return (
    <g strokeWidth={u}>
      <path className="area" d={wing(1)} />
      <path className="area" d={wing(-1)} />
      <path
        className="ink"
        d={`M${b * 0.5} ${c * 0.28}H${b * 0.97}M${-b * 0.5} ${c * 0.28}H${-b * 0.97}`}
        strokeWidth={u * 0.8}
      />
      <path
        className="area"
        d={`M0 ${-l * 0.5}C${w * 1.3} ${-l * 0.42} ${w * 1.5} ${-l * 0.1} ${w} ${l * 0.12}L${w * 0.45} ${tail}H${-w * 0.45}L${-w} ${l * 0.12}C${-w * 1.5} ${-l * 0.1} ${-w * 1.3} ${-l * 0.42} 0 ${-l * 0.5}Z`}
      />
      <path className="area" d={g.tail === "v" ? vTail(b, c, tail) : plainTail(b, c, tail)} />
      <path
        className="ink"
        d={`M${-(g.prop_diameter_m ?? 0.3) / 2} ${l * 0.36}H${(g.prop_diameter_m ?? 0.3) / 2}`}
        strokeWidth={u * 1.4}
      />
    </g>
  );
}

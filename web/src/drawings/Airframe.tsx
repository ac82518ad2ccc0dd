import { memo, type KeyboardEvent } from "react";
import type { Schemas } from "../api/client";
import { words, type Verdict } from "../parts/Flag";
import { useDrawn } from "./useDrawn";

export type TypeEntry = Schemas["TypeEntry"];

export interface StationMark {
  verdict?: Verdict;
  /** Number on the walk; replaces the plain dot. */
  number?: number;
  done?: boolean;
  here?: boolean;
  label?: string;
}

export interface AirframeProps {
  type: TypeEntry;
  marks?: Record<string, StationMark>;
  /** Station ids in the order they are walked. */
  path?: string[];
  selected?: string;
  onSelect?: (station: string) => void;
  /** A small picture: what is in order is a dot, what is not is a mark at its true place. */
  plain?: boolean;
  /** Metres across the picture; the same number draws aircraft at one scale. */
  span?: number;
  height?: number | string;
  label: string;
}

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
      className="airframe"
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
          className="path"
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

/** Ranks a mark, so that what is wrong is drawn last and on top. */
function bad(m: StationMark | undefined): number {
  return m?.verdict === "stop" ? 2 : m?.verdict === "watch" ? 1 : 0;
}

/** What is drawn last: what is wrong, and above all what is in hand. */
function onTop(m: StationMark | undefined): number {
  return bad(m) + (m?.here ? 3 : 0);
}

/** Where the marks stand: at their stations, moved apart where two share a place. */
function place(stations: Schemas["Station"][], half: number): Map<string, { x: number; y: number }> {
  const out = new Map<string, { x: number; y: number }>();
  const gap = half * 0.145;
  const taken: { x: number; y: number }[] = [];
  for (const s of stations) {
    const at = { x: s.x, y: -s.y };
    const r = Math.hypot(at.x, at.y);
    // Outwards from the middle; marks in the middle move down.
    const dx = r > half * 0.2 ? at.x / r : 0;
    const dy = r > half * 0.2 ? at.y / r : 1;
    for (let i = 0; i < 12 && taken.some((t) => Math.hypot(t.x - at.x, t.y - at.y) < gap); i++) {
      at.x += dx * gap * 0.35;
      at.y += dy * gap * 0.35;
    }
    at.x = Math.max(-half * 0.93, Math.min(half * 0.93, at.x));
    at.y = Math.max(-half * 0.93, Math.min(half * 0.93, at.y));
    taken.push(at);
    out.set(s.id, at);
  }
  return out;
}

interface StationProps {
  s: Schemas["Station"];
  x: number;
  y: number;
  r: number;
  /** The radius that a number needs to be read; 0 where all have room. */
  least: number;
  p: AirframeProps;
}

/** The least height of a number in px. */
const readable = 16;

function Station({ s, x, y, r: usual, least, p }: StationProps) {
  const m = p.marks?.[s.id];
  if (!m) return null;
  const v = m.verdict ?? "clear";
  const told = least === 0 || m.here || p.selected === s.id; // has its number written
  const r = told ? Math.max(usual, least) : usual * 0.8;
  const number = told ? m.number : undefined;
  const name = `${m.number ? `${m.number} ` : ""}${s.label}: ${m.label ?? words[v]}`;
  const select = p.onSelect && (() => p.onSelect!(s.id));
  const onKey = (e: KeyboardEvent) => {
    if (select && (e.key === "Enter" || e.key === " ")) {
      e.preventDefault();
      select();
    }
  };
  return (
    <g
      className={`station ${v}${m.done ? " done" : ""}${select ? " button" : ""}`}
      transform={`translate(${x} ${y})`}
      onClick={select}
      onKeyDown={onKey}
      role={select ? "button" : undefined}
      tabIndex={select ? 0 : undefined}
      aria-label={select ? name : undefined}
      aria-pressed={select ? p.selected === s.id : undefined}
    >
      <title>{name}</title>
      {(m.here || p.selected === s.id) && <circle className="ring" r={r * 1.5} strokeWidth={r * 0.22} />}
      {select && <circle className="ring focus-ring" r={r * 1.4} strokeWidth={r * 0.4} />}
      <circle className="tint" r={r} strokeWidth={r * 0.16} />
      {v === "stop" && !number && (
        <path className="cross" d={`M${-r * 0.7} 0H${r * 0.7}`} strokeWidth={r * 0.42} />
      )}
      {v === "watch" && !number && (
        <path
          className="cross"
          d={`M0 ${-r * 0.6}V${r * 0.15}M0 ${r * 0.4}V${r * 0.62}`}
          strokeWidth={r * 0.3}
        />
      )}
      {number && <text fontSize={r * 1.15}>{number}</text>}
    </g>
  );
}

type Geometry = Schemas["Geometry"];

/** What does not change while marks do. */
const Body = memo(function Body({ type, u }: { type: TypeEntry; u: number }) {
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
          <path className="line" d={`M0 0L${m.x} ${-m.y}`} strokeWidth={u * 2.2} />
          <circle
            className="disc"
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
  return <path className="line" d={`M${x - c} ${y - s}L${x + c} ${y + s}`} strokeWidth={u * 0.9} />;
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
      <polygon className="body" points={pts.join(" ")} strokeWidth={u} />
      <path
        className="line"
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
      <path className="body" d={wing(1)} />
      <path className="body" d={wing(-1)} />
      <path
        className="line"
        d={`M${b * 0.5} ${c * 0.28}H${b * 0.97}M${-b * 0.5} ${c * 0.28}H${-b * 0.97}`}
        strokeWidth={u * 0.8}
      />
      <path
        className="body"
        d={`M0 ${-l * 0.5}C${w * 1.3} ${-l * 0.42} ${w * 1.5} ${-l * 0.1} ${w} ${l * 0.12}L${w * 0.45} ${tail}H${-w * 0.45}L${-w} ${l * 0.12}C${-w * 1.5} ${-l * 0.1} ${-w * 1.3} ${-l * 0.42} 0 ${-l * 0.5}Z`}
      />
      <path className="body" d={g.tail === "v" ? vTail(b, c, tail) : plainTail(b, c, tail)} />
      <path
        className="line"
        d={`M${-(g.prop_diameter_m ?? 0.3) / 2} ${l * 0.36}H${(g.prop_diameter_m ?? 0.3) / 2}`}
        strokeWidth={u * 1.4}
      />
    </g>
  );
}

import { type KeyboardEvent } from "react";
import type { Schemas } from "../api/client";
import { words, type Verdict } from "../parts/Flag";
import { type TypeEntry } from "./AirframeBody";

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

/** Ranks a mark, so that what is wrong is drawn last and on top. */
export function bad(m: StationMark | undefined): number {
  return m?.verdict === "stop" ? 2 : m?.verdict === "watch" ? 1 : 0;
}

/** What is drawn last: what is wrong, and above all what is in hand. */
export function onTop(m: StationMark | undefined): number {
  return bad(m) + (m?.here ? 3 : 0);
}

/** Where the marks stand: at their stations, moved apart where two share a place. */
export function place(stations: Schemas["Station"][], half: number): Map<string, { x: number; y: number }> {
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
export const readable = 16;

/** A place on the plan: its mark, and what is said of it. */
export function Station({ s, x, y, r: usual, least, p }: StationProps) {
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

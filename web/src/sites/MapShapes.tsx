import type { PathOptions } from "leaflet";
import { useMemo } from "react";
import { Circle, CircleMarker, Polygon, Polyline } from "react-leaflet";
import type { MapName } from "../parts/MapNames";
import { type Feature, kindName } from "./kinds";
import { marks, ofKind } from "./marks";
import { all, at, lee, middle, type Place, rank, type Wind } from "./shapes";

export interface ShapeProps {
  f: Feature;
  /** Kept clear around it, m. */
  buffer: number;
  on: boolean;
  wind?: Wind;
  onSelect?: (id: string) => void;
}

/** A charted thing. Kinds of areas differ by their hatching, not by colour alone. */
export function Shape({ f, buffer, on, wind, onSelect }: ShapeProps) {
  const events = useMemo(() => ({ click: () => onSelect?.(f.id) }), [onSelect, f.id]);
  const look = useMemo(() => ofKind(f.kind, on), [f.kind, on]);
  const rough = lee(f, wind);
  return (
    <>
      {rough && <Polygon positions={all(rough)} pathOptions={marks.lee} interactive={false} />}
      <Body key={`${!!onSelect}`} {...{ f, buffer, look, events }} />
    </>
  );
}

interface BodyProps {
  f: Feature;
  buffer: number;
  look: PathOptions;
  events: { click: () => void };
}

function Body({ f, buffer, look, events }: BodyProps) {
  if (f.shape === "area")
    return (
      <Polygon
        positions={[all(f.places), ...(f.holes ?? []).map(all)]}
        pathOptions={look}
        eventHandlers={events}
      />
    );
  if (f.shape === "line")
    return (
      <>
        <Polyline positions={all(f.places)} pathOptions={look} eventHandlers={events} />
        {f.kind === "wires" &&
          f.places.map((q, i) => <CircleMarker key={i} center={at(q)} radius={3} pathOptions={marks.pole} />)}
      </>
    );
  const q = f.places[0];
  if (!q) return null;
  return (
    <>
      {buffer > 0 && <Circle center={at(q)} radius={buffer} pathOptions={marks.buffer} interactive={false} />}
      <CircleMarker
        center={at(q)}
        radius={f.kind === "take-off" ? 9 : 7}
        pathOptions={look}
        eventHandlers={events}
      />
    </>
  );
}

/** The names of what is charted, with heights of what stands. */
export function namesOf(features: Feature[], selected?: string): MapName[] {
  return features.flatMap((f) => {
    const where = middle(f);
    if (!where) return [];
    const high = f.height_m == null ? " ?" : ` ${Math.round(f.height_m)} m`;
    const stands = f.kind === "obstacle" || f.kind === "wires";
    const on = f.id === selected;
    return {
      key: f.id,
      at: where,
      words: `${f.name || kindName(f.kind)}${stands ? high : ""}`,
      rank: on ? 99 : rank(f),
      gap: f.shape === "area" && !stands ? -11 : f.shape === "point" ? 10 : 4,
      mark: f.shape === "point" ? 8 : undefined,
      on,
    };
  });
}

/** The hatches of areas: no-go crossed, sensitive dotted, work by thin lines, rough air by waves. */
export function Hatches() {
  return (
    <svg
      className="position-absolute"
      width="0"
      height="0"
      fill="none"
      stroke="currentColor"
      strokeOpacity="0.45"
      aria-hidden="true"
    >
      <defs>
        <pattern id="hatch-area" width="14" height="14" patternUnits="userSpaceOnUse">
          <path d="M0 14L14 0" />
        </pattern>
        <pattern id="hatch-no-go" width="12" height="12" patternUnits="userSpaceOnUse">
          <path d="M0 0L12 12M12 0L0 12" />
        </pattern>
        <pattern
          id="hatch-sensitive"
          fill="currentColor"
          fillOpacity="0.5"
          stroke="none"
          width="10"
          height="10"
          patternUnits="userSpaceOnUse"
        >
          <circle cx="3" cy="3" r="1.6" />
          <circle cx="8" cy="8" r="1.6" />
        </pattern>
        <pattern id="hatch-interference" width="10" height="10" patternUnits="userSpaceOnUse">
          <path d="M0 5H10" />
        </pattern>
        <pattern id="hatch-lee" width="22" height="12" patternUnits="userSpaceOnUse">
          <path d="M0 6Q5.5 1 11 6T22 6" strokeWidth="1.6" strokeOpacity="0.6" />
        </pattern>
      </defs>
    </svg>
  );
}

/** What is being drawn, as far as it is. */
export function Drawing({ shape, places }: { shape: Feature["shape"]; places: Place[] }) {
  return (
    <>
      {shape === "area" && places.length > 2 ? (
        <Polygon positions={all(places)} pathOptions={marks.drawn} interactive={false} />
      ) : (
        <Polyline positions={all(places)} pathOptions={marks.drawn} interactive={false} />
      )}
      {places.map((q, i) => (
        <CircleMarker key={i} center={at(q)} radius={5} pathOptions={marks.corner} interactive={false} />
      ))}
    </>
  );
}

import { useEffect, useState } from "react";
import { createPortal } from "react-dom";
import { useMap, useMapEvents } from "react-leaflet";
import { type Box, placeLabels } from "./labels";
import type { Place } from "./place";

export interface MapName {
  key: string;
  at: Place;
  words: string;
  rank: number;
  /** Px kept to its place. */
  gap?: number;
  /** Radius of the mark there, px: no name lies on it. */
  mark?: number;
  /** Said strongly. */
  on?: boolean;
}

/** Px of the corner that wind and north take. */
const roseSize = 104;

/** Names on a map, none on another: where there is no room, the less important ones are left out. */
export function MapNames({ names }: { names: MapName[] }) {
  const map = useMap();
  const [, draw] = useState(0);
  const [moving, setMoving] = useState(false);
  useMapEvents({
    zoomstart: () => setMoving(true),
    zoomend: () => setMoving(false),
    moveend: () => draw((n) => n + 1),
    resize: () => draw((n) => n + 1),
  });
  useEffect(() => {
    const pane = map.getPane("names") ?? map.createPane("names");
    pane.style.zIndex = "640";
    pane.style.pointerEvents = "none";
    draw((n) => n + 1);
  }, [map]);
  const pane = map.getPane("names");
  if (!pane || moving) return null;
  const size = map.getSize();
  const spots = names.map((n) => ({ ...n, p: map.latLngToContainerPoint([n.at.lat, n.at.lon]) }));
  const marks = spots.flatMap(({ p, mark: r }) =>
    r ? [{ left: p.x - r, top: p.y - r, width: 2 * r, height: 2 * r }] : [],
  );
  const boxes = placeLabels(
    spots.map((n) => {
      const p = n.p;
      return { key: n.key, x: p.x, y: p.y, width: wide(n.words, n.on), height: 22, rank: n.rank, gap: n.gap };
    }),
    [{ left: size.x - roseSize, top: 0, width: roseSize, height: roseSize }, ...buttons, ...marks],
    { left: 2, top: 2, width: size.x - 4, height: size.y - 4 },
  );
  const corner = map.containerPointToLayerPoint([0, 0]);
  return createPortal(
    names.map((n) => {
      const b = boxes.get(n.key);
      return (
        b && (
          <span
            key={n.key}
            className={`mapname${n.on ? " fw-bold" : ""}`}
            style={{ left: corner.x + b.left, top: corner.y + b.top, width: b.width }}
          >
            {n.words}
          </span>
        )
      );
    }),
    pane,
  );
}

/** Where the keys of the map stand. */
const buttons: Box[] = [{ left: 0, top: 0, width: 64, height: 112 }];

let pen: CanvasRenderingContext2D | null | undefined;

/** How wide a word stands, px. */
function wide(words: string, on?: boolean): number {
  pen ??= document.createElement("canvas").getContext("2d");
  if (!pen) return words.length * 9;
  pen.font = `${on ? 700 : 400} 16px "Atkinson Hyperlegible Next Variable", system-ui, sans-serif`;
  return Math.ceil(pen.measureText(words).width) + 10;
}

import type { PathOptions } from "leaflet";

const tints = {
  ink: "var(--bs-body-color)",
  soft: "var(--ink-soft)",
  rule: "var(--rule)",
  paper: "var(--sheet)",
  metal: "var(--metal)",
  clear: "var(--clear)",
  "clear-fill": "var(--clear-fill)",
  stop: "var(--stop)",
  "stop-fill": "var(--stop-fill)",
};
type Tint = keyof typeof tints;

/** How a line or an outline of a map is drawn: width and dashes tell the kinds apart, never colour alone. */
export interface Stroke {
  /** Px; 0 draws no line. */
  width: number;
  dash?: string;
  tint?: Tint;
  opacity?: number;
  /** A tint, or a hatch as `#id`; without it an outline is empty. Lines are never filled. */
  fill?: Tint | `#${string}`;
  fillOpacity?: number;
}

/** The stroke in the words of the map. What is empty inside can still be pressed there. */
export function stroke({
  width,
  dash,
  tint = "ink",
  opacity = 1,
  fill,
  fillOpacity = 1,
}: Stroke): PathOptions {
  return {
    stroke: width > 0,
    color: tints[tint],
    weight: width,
    opacity,
    dashArray: dash,
    fillColor: fill && (fill in tints ? tints[fill as Tint] : `url(${fill})`),
    fillOpacity: fill ? fillOpacity : 0,
  };
}

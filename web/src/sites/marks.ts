import { type Stroke, stroke } from "../parts/strokes";
import type { Kind } from "./kinds";

/** How each kind of charted thing is drawn: told apart without colour. */
export const kindMarks: Record<Kind, Stroke> = {
  "take-off": { width: 4, fill: "paper" },
  area: { width: 2, fill: "#hatch-area" },
  route: { width: 2 },
  obstacle: { width: 3, fill: "ink", fillOpacity: 0.75 },
  wires: { width: 3, dash: "14 5" },
  "no-go": { width: 4, fill: "#hatch-no-go" },
  interference: { width: 5, dash: "1 8", tint: "soft", fill: "#hatch-interference" },
  sensitive: { width: 2, dash: "3 3", fill: "#hatch-sensitive" },
  access: { width: 4, tint: "soft", opacity: 0.5 },
};

/** A charted thing; the one that is chosen is heavy. */
export const ofKind = (kind: Kind, on = false) => stroke({ ...kindMarks[kind], ...(on && { width: 6 }) });

type Verdict = "clear" | "watch" | "stop";

/** A zone of airspace by what it means for this flight. */
export const zoneMarks: Record<Verdict, Stroke> = {
  clear: { width: 2, dash: "12 5", tint: "soft" },
  watch: { width: 2, dash: "12 5" },
  stop: { width: 3.5, dash: "18 6", tint: "stop-fill" },
};

/** The straight way home. */
export const legMarks: Record<Verdict, Stroke> = {
  clear: { width: 3, tint: "clear-fill" },
  watch: { width: 3 },
  stop: { width: 3, tint: "stop-fill" },
};

/** What else is drawn on the map of a site. */
export const marks = {
  lee: stroke({ width: 0, fill: "#hatch-lee" }),
  contour: stroke({ width: 1, tint: "soft", opacity: 0.4 }),
  mainContour: stroke({ width: 2, tint: "soft", opacity: 0.4 }),
  pole: stroke({ width: 2, fill: "ink" }),
  base: stroke({ width: 2, fill: "ink" }),
  buffer: stroke({ width: 1, dash: "4 4", tint: "soft" }),
  looked: stroke({ width: 4, dash: "10 6" }),
  flown: stroke({ width: 1.5, dash: "1 4" }),
  round: stroke({ width: 3, dash: "2 6" }),
  standOff: stroke({ width: 1.5, dash: "3 4" }),
  stand: stroke({ width: 2, tint: "paper", fill: "ink" }),
  cover: stroke({ width: 1.5, dash: "2 4" }),
  sector: stroke({ width: 1, tint: "clear", fill: "clear-fill", fillOpacity: 0.14 }),
  blockedSector: stroke({ width: 1, dash: "6 5", tint: "stop" }),
  drawn: stroke({ width: 3, dash: "6 4", fill: "metal", fillOpacity: 0.3 }),
  corner: stroke({ width: 3, fill: "paper" }),
};

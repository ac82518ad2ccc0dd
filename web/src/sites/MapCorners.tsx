import L from "leaflet";
import { Fragment } from "react";
import { Marker } from "react-leaflet";
import type { Feature } from "./kinds";
import { at, type Place } from "./shapes";

const handle = (mark: string) =>
  L.divIcon({
    className: "handle",
    iconSize: [40, 40],
    html: `<svg class="drawn" viewBox="-20 -20 40 40">${mark}</svg>`,
  });
const corner = handle('<path class="paper" d="M-6-6H6V6H-6Z" />');
const between = handle('<circle class="paper" r="4.5" opacity="0.75" />');
const near = (q: L.LatLng): Place => ({
  lat: Math.round(q.lat * 1e7) / 1e7,
  lon: Math.round(q.wrap().lng * 1e7) / 1e7,
});

/** Handles on the corners of a shape; those between two corners make a new one. Too many would hide the shape. */
export function Corners({
  f,
  onReshape,
}: {
  f: Feature;
  onReshape: (places: Place[], holes: Place[][]) => void;
}) {
  const rings = [f.places, ...(f.holes ?? [])];
  if (rings.reduce((n, r) => n + r.length, 0) > 60) return null;
  const change = (ring: number, next: Place[]) => {
    const changed = rings.map((r, i) => (i === ring ? next : r));
    onReshape(changed[0] ?? [], changed.slice(1));
  };
  return rings.map((ring, r) =>
    ring.map((q, i) => {
      const to = ring[i + 1] ?? (f.shape === "area" ? ring[0] : undefined);
      return (
        <Fragment key={`${r}-${i}-${ring.length}`}>
          <Marker
            position={at(q)}
            icon={corner}
            draggable
            title={`Corner ${i + 1}${r > 0 ? ` of hole ${r}` : ""}`}
            eventHandlers={{
              dragend: (e) =>
                change(
                  r,
                  ring.map((x, k) => (k === i ? near((e.target as L.Marker).getLatLng()) : x)),
                ),
            }}
          />
          {to && f.shape !== "point" && (
            <Marker
              position={[(q.lat + to.lat) / 2, (q.lon + to.lon) / 2]}
              icon={between}
              draggable
              title={`New corner after ${i + 1}`}
              eventHandlers={{
                dragend: (e) =>
                  change(r, [
                    ...ring.slice(0, i + 1),
                    near((e.target as L.Marker).getLatLng()),
                    ...ring.slice(i + 1),
                  ]),
              }}
            />
          )}
        </Fragment>
      );
    }),
  );
}

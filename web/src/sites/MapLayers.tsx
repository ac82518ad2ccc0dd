import { useEffect } from "react";
import { ImageOverlay, Polyline, useMap, useMapEvents } from "react-leaflet";
import type { Schemas } from "../api/client";
import { type Ground } from "./relief";
import { marks } from "./marks";
import { all, type Place } from "./shapes";

/** The shade of the slopes, and contours over it. */
export function Relief({ ground: { relief, shade } }: { ground: Ground }) {
  return (
    <>
      <ImageOverlay
        url={shade}
        bounds={[
          [relief.south, relief.west],
          [relief.north, relief.east],
        ]}
        opacity={0.85}
      />
      {relief.lines.map((l, i) => (
        <Polyline
          key={i}
          positions={all(l.places)}
          className="contour"
          pathOptions={l.main ? marks.mainContour : marks.contour}
          interactive={false}
        />
      ))}
    </>
  );
}

/** Draws back so far that the zones round the site are seen, and comes near again. */
export function Reach({ zones }: { zones?: Schemas["ZoneSeen"][] }) {
  const map = useMap();
  const key = zones?.map((x) => x.id).join();
  useEffect(() => {
    if (!key) return;
    const [centre, zoom] = [map.getCenter(), map.getZoom()];
    map.setZoom(Math.min(zoom, 13), { animate: false });
    return () => {
      if (!map.getPane("mapPane")) return; // the page is left, and the map with it
      map.setView(centre, zoom, { animate: false });
    };
  }, [map, key]);
  return null;
}

/** Hands on where the map is pressed. */
export function Clicks({ onPlace }: { onPlace?: (p: Place) => void }) {
  useMapEvents({
    click: (e) => {
      const q = e.latlng.wrap();
      onPlace?.({ lat: Math.round(q.lat * 1e7) / 1e7, lon: Math.round(q.lng * 1e7) / 1e7 });
    },
  });
  return null;
}

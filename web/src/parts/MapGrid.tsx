import { useEffect, useState } from "react";
import { Polyline, useMap, useMapEvents } from "react-leaflet";
import { stroke } from "./strokes";

const thin = stroke({ width: 1, tint: "rule" });
const steps = [5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000, 50_000, 100_000];

/** Lines every so many metres, with the step in words: a scale that works without any network. */
export function MapGrid() {
  const map = useMap();
  const [b, setB] = useState(() => map.getBounds());
  useMapEvents({ moveend: () => setB(map.getBounds()), zoomend: () => setB(map.getBounds()) });
  useEffect(() => {
    const pane = map.getPane("grid") ?? map.createPane("grid");
    pane.style.zIndex = "350";
    pane.style.pointerEvents = "none";
    setB(map.getBounds());
  }, [map]);
  if (!map.getPane("grid")) return null;
  const mid = b.getCenter();
  const mLat = 111_200;
  const mLon = 111_320 * Math.cos((mid.lat * Math.PI) / 180);
  const px = map.getSize().x / ((b.getEast() - b.getWest()) * mLon);
  const step = steps.find((s) => s * px > 70) ?? 200_000;
  const lines: [number, number][][] = [];
  const dLat = step / mLat;
  const dLon = step / mLon;
  for (let v = Math.ceil(b.getSouth() / dLat) * dLat; v < b.getNorth() && lines.length < 60; v += dLat)
    lines.push([
      [v, b.getWest()],
      [v, b.getEast()],
    ]);
  for (let v = Math.ceil(b.getWest() / dLon) * dLon; v < b.getEast() && lines.length < 120; v += dLon)
    lines.push([
      [b.getSouth(), v],
      [b.getNorth(), v],
    ]);
  return (
    <>
      <Polyline
        key={`${step}-${mid.lat}-${mid.lng}-${map.getZoom()}`}
        pane="grid"
        positions={lines}
        pathOptions={thin}
        interactive={false}
      />
      <div className="leaflet-bottom leaflet-right plate fig">
        grid {step < 1000 ? `${step} m` : `${step / 1000} km`}
      </div>
    </>
  );
}

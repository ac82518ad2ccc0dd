import "leaflet/dist/leaflet.css";
import { CircleMarker, MapContainer, ScaleControl, TileLayer, useMapEvents } from "react-leaflet";
import { MapGrid } from "./MapGrid";
import { MapNames } from "./MapNames";
import { type Place, showPlace } from "./place";

export interface NamedPlace extends Place {
  name: string;
}

export interface PickMapProps {
  /** What is drawn for the eye to find its way by. */
  near: NamedPlace[];
  /** What stands in the field, if it can be read. */
  place?: Place;
  onPick: (text: string) => void;
  tiles?: string;
}

/** A map on which a press is a place. */
export default function PickMap({ near, place, onPick, tiles }: PickMapProps) {
  const first = place ?? near[0];
  const names = near.map((p) => ({ key: p.name, at: p, words: p.name, rank: 1, gap: 10, mark: 7 }));
  const bounds = [...near, ...(place ? [place] : [])].map((p): [number, number] => [p.lat, p.lon]);
  return (
    <div className="sitemap drawing pick">
      <MapContainer
        {...(bounds.length > 1
          ? { bounds, boundsOptions: { padding: [30, 30], maxZoom: 15 } }
          : { center: first ? [first.lat, first.lon] : [0, 0], zoom: first ? 15 : 2 })}
        maxZoom={21}
        zoomSnap={0.5}
        fadeAnimation={false}
        attributionControl={false}
        doubleClickZoom={false}
      >
        {tiles && <TileLayer url={tiles} opacity={0.6} />}
        <MapGrid />
        <ScaleControl imperial={false} position="bottomleft" />
        {near.map((p) => (
          <CircleMarker key={p.name} center={[p.lat, p.lon]} radius={6} className="m-take-off" />
        ))}
        {place && (
          <CircleMarker
            center={[place.lat, place.lon]}
            radius={9}
            className="m-obstacle on"
            interactive={false}
          />
        )}
        <MapNames names={names} />
        <Press onPick={onPick} />
      </MapContainer>
    </div>
  );
}

function Press({ onPick }: Pick<PickMapProps, "onPick">) {
  useMapEvents({
    click: (e) => {
      const q = e.latlng.wrap();
      onPick(showPlace({ lat: q.lat, lon: q.lng }));
    },
  });
  return null;
}

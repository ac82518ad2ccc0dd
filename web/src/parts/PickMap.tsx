import { CircleMarker, useMapEvents } from "react-leaflet";
import { MapFrame } from "./MapFrame";
import { type Place, showPlace } from "./place";
import { stroke } from "./strokes";

const known = stroke({ width: 4, fill: "paper" });
const picked = stroke({ width: 6, fill: "ink", fillOpacity: 0.75 });

export interface NamedPlace extends Place {
  name: string;
}

export interface PickMapProps {
  /** What is drawn for the eye to find its way by. */
  near: NamedPlace[];
  /** What stands in the field, if it can be read. */
  place?: Place;
  onPick: (text: string) => void;
}

/** A map on which a press is a place. */
export default function PickMap({ near, place, onPick }: PickMapProps) {
  const first = place ?? near[0];
  const names = near.map((p) => ({ key: p.name, at: p, words: p.name, rank: 1, gap: 10, mark: 7 }));
  const bounds = [...near, ...(place ? [place] : [])].map((p): [number, number] => [p.lat, p.lon]);
  return (
    <div className="mb-3">
      <MapFrame
        height="300px"
        names={names}
        aims
        {...(bounds.length > 1
          ? { bounds, boundsOptions: { padding: [30, 30], maxZoom: 15 } }
          : { center: first ? [first.lat, first.lon] : [0, 0], zoom: first ? 15 : 2 })}
        doubleClickZoom={false}
      >
        {near.map((p) => (
          <CircleMarker key={p.name} center={[p.lat, p.lon]} radius={6} pathOptions={known} />
        ))}
        {place && (
          <CircleMarker center={[place.lat, place.lon]} radius={9} pathOptions={picked} interactive={false} />
        )}
        <Press onPick={onPick} />
      </MapFrame>
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

import L from "leaflet";
import { useMemo } from "react";
import { CircleMarker } from "react-leaflet";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { MapFrame } from "../parts/MapFrame";
import { marks, ofKind } from "./marks";

/** All sites on one map: a press opens one. */
export function SitesMap({ sites }: { sites: Schemas["SiteHead"][] }) {
  const go = useNavigate();
  const key = sites.map((s) => s.id).join();
  const bounds = useMemo(
    () => L.latLngBounds(sites.map((s) => [s.lat, s.lon])).pad(0.3),
    // Only when other sites are shown.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [key],
  );
  const names = useMemo(
    () =>
      sites.map((s) => ({
        key: s.id,
        at: s,
        words: s.name,
        rank: s.features + (s.practice ? 100 : 0),
        gap: 13,
        mark: 11,
      })),
    [sites],
  );
  return (
    <div className="mb-3" role="region" aria-label="All sites on one map; each is in the list too">
      <MapFrame
        key={key}
        height="min(38vh, 340px)"
        names={names}
        bounds={bounds}
        boundsOptions={{ maxZoom: 14 }}
        maxZoom={18}
      >
        {sites.map((s) => (
          <CircleMarker
            key={s.id}
            center={[s.lat, s.lon]}
            radius={s.practice ? 11 : 8}
            pathOptions={s.practice ? marks.base : ofKind("take-off")}
            eventHandlers={{ click: () => void go(`/sites/${s.id}`) }}
          />
        ))}
      </MapFrame>
    </div>
  );
}

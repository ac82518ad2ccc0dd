import L from "leaflet";
import "leaflet/dist/leaflet.css";
import { useMemo } from "react";
import { CircleMarker, MapContainer, ScaleControl, TileLayer } from "react-leaflet";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { MapGrid } from "../parts/MapGrid";
import { MapNames } from "../parts/MapNames";

/** All sites on one map: a press opens one. */
export function SitesMap({ sites }: { sites: Schemas["SiteHead"][] }) {
  const { crew } = useSession();
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
    <div
      className="sitemap all-sites"
      role="region"
      aria-label="All sites on one map; each is in the list too"
    >
      <MapContainer
        key={key}
        bounds={bounds}
        boundsOptions={{ maxZoom: 14 }}
        maxZoom={18}
        zoomSnap={0.5}
        fadeAnimation={false}
        attributionControl={false}
      >
        {crew.tile_url && <TileLayer url={crew.tile_url} opacity={0.6} />}
        <MapGrid />
        <ScaleControl imperial={false} position="bottomleft" />
        {sites.map((s) => (
          <CircleMarker
            key={s.id}
            center={[s.lat, s.lon]}
            radius={s.practice ? 11 : 8}
            className={s.practice ? "m-base" : "m-take-off"}
            eventHandlers={{ click: () => void go(`/sites/${s.id}`) }}
          />
        ))}
        <MapNames names={names} />
      </MapContainer>
    </div>
  );
}

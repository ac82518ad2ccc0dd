import "leaflet/dist/leaflet.css";
import type { ReactNode } from "react";
import { MapContainer, type MapContainerProps, ScaleControl, TileLayer } from "react-leaflet";
import { MapGrid } from "./MapGrid";
import { MapNames, type MapName } from "./MapNames";
import { useSession } from "./session";

export interface MapFrameProps extends MapContainerProps {
  height: string;
  names: MapName[];
  /** A press sets a place. */
  aims?: boolean;
  /** What lies below the grid. */
  under?: ReactNode;
  /** What stands at the edge, not on the ground. */
  beside?: ReactNode;
}

/** A map of our own layers, so that it works without any network: grid, scale, what is charted, names. */
export function MapFrame({ height, names, aims, under, beside, children, ...map }: MapFrameProps) {
  const { crew } = useSession();
  return (
    <div className={`sitemap${aims ? " aims" : ""}`} style={{ height }}>
      <MapContainer maxZoom={21} zoomSnap={0.5} fadeAnimation={false} attributionControl={false} {...map}>
        {crew.tile_url && <TileLayer url={crew.tile_url} opacity={0.6} />}
        {under}
        <MapGrid />
        <ScaleControl imperial={false} position="bottomleft" />
        {children}
        <MapNames names={names} />
      </MapContainer>
      {beside}
    </div>
  );
}

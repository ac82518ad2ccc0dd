import L from "leaflet";
import { useMemo } from "react";
import { Polygon, Polyline } from "react-leaflet";
import type { Schemas } from "../api/client";
import { MapFrame } from "../parts/MapFrame";
import { stroke } from "../parts/strokes";
import { WindRose } from "../parts/WindRose";
import type { Feature } from "./kinds";
import { Corners } from "./MapCorners";
import { Drawing, Hatches, namesOf, Shape } from "./MapShapes";
import { Way } from "./MapWay";
import { WindArrows } from "./MapWind";
import { marks, zoneMarks } from "./marks";
import { type Ground, heightNames } from "./relief";
import { all, at, type Place, type Wind } from "./shapes";
import { Relief, Reach, Clicks } from "./MapLayers";

export interface SiteMapProps {
  centre: Place;
  features: Feature[];
  /** Metres kept clear around a kind of feature that has no buffer of its own. */
  usualBuffer: Record<string, number>;
  selected?: string;
  onSelect: (id: string) => void;
  /** Places of the shape that is being drawn; undefined: nothing is drawn. */
  drawing?: { shape: Feature["shape"]; places: Place[] };
  onPlace: (p: Place) => void;
  /** The corners of the selected shape can be dragged; undefined: they cannot. */
  onReshape?: (places: Place[], holes: Place[][]) => void;
  way?: Schemas["WayHome"];
  /** Zones of airspace, shown when they are what one looks at. */
  zones?: Schemas["ZoneSeen"][];
  ground?: Ground;
  /** The line whose heights are looked at. */
  line?: Place[];
  wind?: Wind;
}

/** The site from above: own layers only, so that it works without any network. */
export function SiteMap(p: SiteMapProps) {
  const fit = useMemo(() => {
    const ps = p.features.flatMap((f) => all(f.places));
    return ps.length > 1 ? L.latLngBounds(ps).pad(0.22) : undefined;
    // Only when another site is opened, not at every change of it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [p.centre.lat, p.centre.lon]);
  const selected = p.features.find((f) => f.id === p.selected);
  const names = useMemo(
    () => [...namesOf(p.features, p.selected), ...heightNames(p.ground)],
    [p.features, p.selected, p.ground],
  );
  return (
    <MapFrame
      height="min(58vh, 560px)"
      names={names}
      aims={!!p.drawing}
      {...(fit ? { bounds: fit } : { center: at(p.centre), zoom: 16 })}
      minZoom={9}
      doubleClickZoom={false}
      under={p.ground && <Relief ground={p.ground} />}
      beside={
        <>
          <Hatches />
          <WindRose from={p.wind?.from} />
        </>
      }
    >
      {p.zones?.map((x) => (
        <Polygon
          key={x.id}
          positions={[all(x.outline), ...x.holes.map(all)]}
          pathOptions={stroke(zoneMarks[x.inside ? x.verdict : "clear"])}
          interactive={false}
        />
      ))}
      {p.features.map((f) => (
        <Shape
          key={f.id}
          f={f}
          buffer={f.buffer_m || p.usualBuffer[f.kind] || 0}
          on={p.selected === f.id}
          wind={p.wind}
          onSelect={p.drawing ? undefined : p.onSelect}
        />
      ))}
      {p.way && <Way way={p.way} />}
      {p.wind && <WindArrows features={p.features} wind={p.wind} />}
      {p.line && <Polyline positions={all(p.line)} pathOptions={marks.looked} interactive={false} />}
      {p.drawing && <Drawing {...p.drawing} />}
      {p.onReshape && !p.drawing && selected && (
        <Corners key={selected.id} f={selected} onReshape={p.onReshape} />
      )}
      <Reach zones={p.zones} />
      <Clicks onPlace={p.drawing ? p.onPlace : undefined} />
    </MapFrame>
  );
}

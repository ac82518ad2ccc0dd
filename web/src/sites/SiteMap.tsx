import L from "leaflet";
import "leaflet/dist/leaflet.css";
import { Fragment, useEffect, useMemo, useState } from "react";
import {
  Circle,
  CircleMarker,
  MapContainer,
  Marker,
  Polygon,
  Polyline,
  ScaleControl,
  TileLayer,
  Tooltip,
  useMap,
  useMapEvents,
} from "react-leaflet";
import type { Schemas } from "../api/client";
import { useSession } from "../app/session";
import { type Feature, kindName } from "./kinds";

type Place = Schemas["Place"];
const at = (p: Place): [number, number] => [p.lat, p.lon];
const all = (ps: Place[]) => ps.map(at);

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
  /** Degrees the wind comes from. */
  windFrom?: number | null;
}

/** The site from above: own layers only, so that it works without any network. */
export function SiteMap(p: SiteMapProps) {
  const { crew } = useSession();
  const fit = useMemo(() => {
    const ps = p.features.flatMap((f) => all(f.places));
    return ps.length > 1 ? L.latLngBounds(ps).pad(0.22) : undefined;
    // Only when another site is opened, not at every change of it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [p.centre.lat, p.centre.lon]);
  const selected = p.features.find((f) => f.id === p.selected);
  return (
    <div className={`sitemap${p.drawing ? " drawing" : ""}`}>
      <MapContainer
        {...(fit ? { bounds: fit } : { center: at(p.centre), zoom: 16 })}
        maxZoom={21}
        minZoom={9}
        zoomSnap={0.5}
        fadeAnimation={false}
        attributionControl={false}
        doubleClickZoom={false}
        keyboard
      >
        {crew.tile_url && <TileLayer url={crew.tile_url} opacity={0.6} />}
        <Grid />
        {p.zones?.map((x) => (
          <Polygon
            key={`${x.id}-${x.verdict}`}
            positions={[all(x.outline), ...x.holes.map(all)]}
            className={`m-zone ${x.inside ? x.verdict : "clear"}`}
            interactive={false}
          />
        ))}
        <ScaleControl imperial={false} position="bottomleft" />
        {p.features.map((f) => (
          <Shape
            key={f.id}
            f={f}
            buffer={f.buffer_m || p.usualBuffer[f.kind] || 0}
            on={p.selected === f.id}
            onSelect={p.drawing ? undefined : p.onSelect}
          />
        ))}
        {p.way && <Way way={p.way} />}
        {p.drawing && <Drawing {...p.drawing} />}
        {p.onReshape && !p.drawing && selected && (
          <Corners key={selected.id} f={selected} onReshape={p.onReshape} />
        )}
        <Reach zones={p.zones} />
        <Clicks onPlace={p.drawing ? p.onPlace : undefined} />
      </MapContainer>
      <Rose from={p.windFrom} />
    </div>
  );
}

/** Draws back so far that the zones round the site are seen, and comes near again. */
function Reach({ zones }: { zones?: Schemas["ZoneSeen"][] }) {
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

function Clicks({ onPlace }: { onPlace?: (p: Place) => void }) {
  useMapEvents({
    click: (e) => {
      const q = e.latlng.wrap();
      onPlace?.({ lat: Math.round(q.lat * 1e7) / 1e7, lon: Math.round(q.lng * 1e7) / 1e7 });
    },
  });
  return null;
}

/** Names are shown from near; from afar they would hide the map. */
function Name({ f }: { f: Feature }) {
  const words = f.name || kindName(f.kind);
  return (
    <Tooltip permanent direction="top" className="mapname" offset={[0, f.shape === "point" ? -9 : 0]}>
      {words}
      {(f.kind === "obstacle" || f.kind === "wires") &&
        ` ${f.height_m == null ? "?" : `${Math.round(f.height_m)} m`}`}
    </Tooltip>
  );
}

interface ShapeProps {
  f: Feature;
  /** Kept clear around it, m. */
  buffer: number;
  on: boolean;
  onSelect?: (id: string) => void;
}

function Shape({ f, buffer, on, onSelect }: ShapeProps) {
  const map = useMap();
  const [near, setNear] = useState(map.getZoom() >= 15.5);
  useMapEvents({ zoomend: () => setNear(map.getZoom() >= 15.5) });
  const events = useMemo(() => ({ click: () => onSelect?.(f.id) }), [onSelect, f.id]);
  const cls = `m-${f.kind}${on ? " on" : ""}`;
  const named = on || (near && f.kind !== "interference" && f.kind !== "access" && f.kind !== "area");
  const name = named && <Name f={f} />;
  const key = `${cls}-${named}-${!!onSelect}`;
  if (f.shape === "area")
    return (
      <Polygon
        key={key}
        positions={[all(f.places), ...(f.holes ?? []).map(all)]}
        className={cls}
        eventHandlers={events}
      >
        {name}
      </Polygon>
    );
  if (f.shape === "line")
    return (
      <>
        <Polyline key={key} positions={all(f.places)} className={cls} eventHandlers={events}>
          {name}
        </Polyline>
        {f.kind === "wires" &&
          f.places.map((q, i) => <CircleMarker key={i} center={at(q)} radius={3} className="m-pole" />)}
      </>
    );
  const q = f.places[0];
  if (!q) return null;
  return (
    <>
      {buffer > 0 && <Circle center={at(q)} radius={buffer} className="m-buffer" interactive={false} />}
      <CircleMarker
        key={key}
        center={at(q)}
        radius={f.kind === "take-off" ? 9 : 7}
        className={cls}
        eventHandlers={events}
      >
        {name}
      </CircleMarker>
    </>
  );
}

function Way({ way }: { way: Schemas["WayHome"] }) {
  const first = way.route[0];
  return (
    <>
      <Polyline positions={all(way.route)} className="m-flown" interactive={false} />
      {first && (
        <Polyline
          key={way.legs[0]?.verdict}
          positions={[at(way.take_off), at(first)]}
          className={`m-leg ${way.legs[0]?.verdict ?? ""}`}
          interactive={false}
        />
      )}
      {way.way_round.length > 2 && (
        <Polyline positions={all(way.way_round)} className="m-round" interactive={false} />
      )}
      {way.stand_off_m > 0 && (
        <Circle center={at(way.take_off)} radius={way.stand_off_m} className="m-stand-off">
          <Tooltip className="mapname">Nobody within {Math.round(way.stand_off_m)} m</Tooltip>
        </Circle>
      )}
      {way.stand && (
        <CircleMarker center={at(way.stand)} radius={5} className="m-stand">
          <Tooltip className="mapname">The crew stands here</Tooltip>
        </CircleMarker>
      )}
      {way.sectors.map((s) => (
        <Polygon
          key={`${s.heading}-${s.clear}`}
          positions={[wedge(way.take_off, s)]}
          className={`m-sector${s.clear ? "" : " blocked"}`}
          interactive={false}
        />
      ))}
      {way.stand && way.cover && (
        <Polyline positions={[at(way.stand), at(way.cover.place)]} className="m-cover" interactive={false} />
      )}
    </>
  );
}

/** The outline of the sector that a wing climbs out through. */
function wedge(p: Place, s: Schemas["Sector"]): L.LatLngExpression[] {
  const rad = Math.PI / 180;
  const far = s.half_m + s.length_m * Math.tan(s.half_deg * rad);
  const [sin, cos] = [Math.sin(s.heading * rad), Math.cos(s.heading * rad)];
  return [
    [0, -s.half_m],
    [s.length_m, -far],
    [s.length_m, far],
    [0, s.half_m],
  ].map(([along = 0, right = 0]) => [
    p.lat + (along * cos - right * sin) / 111_195,
    p.lon + (along * sin + right * cos) / (111_195 * Math.cos(p.lat * rad)),
  ]);
}

const corner = L.divIcon({ className: "m-handle", iconSize: [40, 40] });
const between = L.divIcon({ className: "m-handle between", iconSize: [40, 40] });
const near = (q: L.LatLng): Place => ({
  lat: Math.round(q.lat * 1e7) / 1e7,
  lon: Math.round(q.wrap().lng * 1e7) / 1e7,
});

/** Handles on the corners of a shape; those between two corners make a new one. Too many would hide the shape. */
function Corners({ f, onReshape }: { f: Feature; onReshape: (places: Place[], holes: Place[][]) => void }) {
  const rings = [f.places, ...(f.holes ?? [])];
  if (rings.reduce((n, r) => n + r.length, 0) > 60) return null;
  const change = (ring: number, next: Place[]) => {
    const all = rings.map((r, i) => (i === ring ? next : r));
    onReshape(all[0] ?? [], all.slice(1));
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

function Drawing({ shape, places }: { shape: Feature["shape"]; places: Place[] }) {
  return (
    <>
      {shape === "area" && places.length > 2 ? (
        <Polygon positions={all(places)} className="m-new" interactive={false} />
      ) : (
        <Polyline positions={all(places)} className="m-new" interactive={false} />
      )}
      {places.map((q, i) => (
        <CircleMarker key={i} center={at(q)} radius={5} className="m-corner" interactive={false} />
      ))}
    </>
  );
}

const steps = [5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000];

/** Lines every so many metres, with the step in words. */
function Grid() {
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
  const step = steps.find((s) => s * px > 70) ?? 10_000;
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
        className="m-grid"
        interactive={false}
      />
      <div className="gridstep fig">grid {step < 1000 ? `${step} m` : `${step / 1000} km`}</div>
    </>
  );
}

/** North, and where the wind blows to. */
function Rose({ from }: { from?: number | null }) {
  return (
    <svg className="rose" viewBox="-40 -40 80 80" role="img" aria-label={rose(from)}>
      <circle r="36" className="edge" />
      <path d="M0 -34L6 -20H-6Z" className="north" />
      <text y="-8" textAnchor="middle">
        N
      </text>
      {from != null && (
        <g transform={`rotate(${from})`}>
          <path d="M0 -30V26M-7 16L0 27L7 16" className="wind" />
        </g>
      )}
    </svg>
  );
}

const rose = (from?: number | null) =>
  from == null ? "North is up; the wind is not known" : `North is up; wind from ${Math.round(from)} degrees`;

import type { LatLngExpression } from "leaflet";
import { Circle, CircleMarker, Polygon, Polyline, Tooltip } from "react-leaflet";
import type { Schemas } from "../api/client";
import { legMarks, marks } from "./marks";
import { stroke } from "../parts/strokes";
import { all, at, type Place } from "./shapes";

/** The way home on the map: flown, straight home, round, and where the crew stands. */
export function Way({ way }: { way: Schemas["WayHome"] }) {
  const first = way.route[0];
  return (
    <>
      <Polyline positions={all(way.route)} pathOptions={marks.flown} interactive={false} />
      {first && (
        <Polyline
          positions={[at(way.take_off), at(first)]}
          pathOptions={stroke(legMarks[way.legs[0]?.verdict ?? "watch"])}
          interactive={false}
        />
      )}
      {way.way_round.length > 2 && (
        <Polyline positions={all(way.way_round)} pathOptions={marks.round} interactive={false} />
      )}
      {way.stand_off_m > 0 && (
        <Circle center={at(way.take_off)} radius={way.stand_off_m} pathOptions={marks.standOff}>
          <Tooltip className="mapname">Nobody within {Math.round(way.stand_off_m)} m</Tooltip>
        </Circle>
      )}
      {way.stand && (
        <CircleMarker center={at(way.stand)} radius={5} pathOptions={marks.stand}>
          <Tooltip className="mapname">The crew stands here</Tooltip>
        </CircleMarker>
      )}
      {way.sectors.map((s) => (
        <Polygon
          key={`${s.heading}-${s.clear}`}
          positions={[wedge(way.take_off, s)]}
          className={s.clear ? "sector" : "sector blocked"}
          pathOptions={s.clear ? marks.sector : marks.blockedSector}
          interactive={false}
        />
      ))}
      {way.stand && way.cover && (
        <Polyline
          positions={[at(way.stand), at(way.cover.place)]}
          pathOptions={marks.cover}
          interactive={false}
        />
      )}
    </>
  );
}

/** The outline of the sector that a wing climbs out through. */
function wedge(p: Place, s: Schemas["Sector"]): LatLngExpression[] {
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

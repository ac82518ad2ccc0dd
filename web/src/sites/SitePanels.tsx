import { AirspacePanel } from "../airspace/AirspacePanel";
import type { Schemas } from "../api/client";
import { useAddress } from "../parts/address";
import { Empty } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import type { useAirspace, useSky, useWayHome } from "./api";
import { FilesPanel } from "./FilesPanel";
import { MapPanel } from "./MapPanel";
import type { asksOf } from "./model";
import type { Drawing } from "./useDrawing";
import { WayHomePanel } from "./WayHomePanel";
import { WeatherPanel } from "./WeatherPanel";

/** Heights as they are typed beside the way home. */
export interface TypedHeights {
  setting: string;
  route: string;
}

export interface SitePanelsProps {
  s: Schemas["Site"];
  d: Drawing;
  may: boolean;
  asks: ReturnType<typeof asksOf>;
  ready: boolean;
  typed: TypedHeights;
  setTyped: (change: (t: TypedHeights) => TypedHeights) => void;
  way: ReturnType<typeof useWayHome>;
  sky: ReturnType<typeof useSky>;
  air: ReturnType<typeof useAirspace>;
}

/** What is beside the map: one part of the site file at a time. */
export function SitePanels({ s, d, may, asks, ready, typed, setTyped, way, sky, air }: SitePanelsProps) {
  const id = s.head.id;
  const [params, set] = useAddress();
  const tab = params.get("tab") ?? "map";
  return (
    <div className="vstack gap-3">
      <Tabs
        label="Parts of the site file"
        tabs={[
          { key: "map", name: "Map", count: s.features.length },
          { key: "home", name: "Way home" },
          { key: "weather", name: "Weather" },
          { key: "airspace", name: "Airspace" },
          { key: "files", name: "Files" },
        ]}
      />
      {tab === "map" && <MapPanel s={s} d={d} />}
      {tab === "home" &&
        (ready ? (
          <WayHomePanel
            w={way.data}
            error={way.error}
            aircraft={asks.way.aircraft ?? ""}
            setting={typed.setting}
            route={typed.route}
            onChange={(c) => {
              setTyped((t) => ({ ...t, ...c }));
              set(c);
            }}
          />
        ) : (
          <Empty>
            Put a take-off place and a work area or a route on the map; then the way home is judged.
          </Empty>
        ))}
      {tab === "weather" && (
        <WeatherPanel
          site={id}
          sky={sky.data}
          error={sky.error}
          aircraft={asks.way.aircraft ?? ""}
          work={asks.sky.work}
          ground={asks.sky.ground}
          may={may}
          onChange={set}
        />
      )}
      {tab === "airspace" && <AirspacePanel site={id} a={air.data} error={air.error} may={may} />}
      {tab === "files" && <FilesPanel s={s} may={may} />}
    </div>
  );
}

import { columns } from "../parts/columns";
import { SitePanels } from "./SitePanels";
import { Button } from "react-bootstrap";
import { useState } from "react";
import { useParams } from "react-router";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { QueryView } from "../parts/states";
import { useAirspace, useGround, useSite, useSky, useWayHome } from "./api";
import { DrawBar } from "./DrawBar";
import { MapKey } from "./MapKey";
import { asksOf, isReady, windOver } from "./model";
import { HeightsAlong, WaysFromTheSide } from "./SideViews";
import { SiteMap } from "./SiteMap";
import { useDrawing } from "./useDrawing";
import { Hours } from "./SkyHours";
import { Head } from "./SiteHead";

/** A site file: its map, the way home over it, and the air. */
export function SiteView() {
  const q = useSite(useParams().id ?? "");
  return (
    <QueryView query={q} what="the site">
      {(s) => <Charted s={s} />}
    </QueryView>
  );
}

function Charted({ s }: { s: Schemas["Site"] }) {
  const id = s.head.id;
  const may = useMay()("pilot", "crew");
  const [params, set] = useAddress();
  const tab = params.get("tab") ?? "map";
  const d = useDrawing(s.features.map((f) => f.feature));
  // What is typed stands here first; the address follows.
  const [typed, setTyped] = useState({
    setting: params.get("setting") ?? "",
    route: params.get("route") ?? "",
  });
  const asks = asksOf(params, typed);
  const ready = isReady(s);
  const way = useWayHome(id, asks.way, ready);
  const sky = useSky(id, asks.sky);
  const air = useAirspace(id, { height_m: way.data && ready ? way.data.max_agl_m : undefined });
  const ground = useGround(id, s.terrain);
  const home = ready ? way.data : undefined;
  // What is charted anew is looked at anew.
  const state = `${s.terrain?.at}-${s.features.map((f) => f.version).join()}`;
  return (
    <>
      <Head s={s} may={may} of={{ "way home": home, weather: sky.data, airspace: air.data }} />
      {s.head.note && <p className="mb-2">{s.head.note}</p>}
      <div className="two" style={columns("minmax(0, 3fr) minmax(0, 2fr)")}>
        <div className="vstack gap-3">
          {may && (
            <DrawBar
              draft={d.draft}
              onDraft={d.setDraft}
              onFinish={d.finish}
              area={d.now?.shape === "area" ? d.now : undefined}
              onFill={() => d.now && d.reshape(d.now.places, (d.now.holes ?? []).slice(0, -1))}
              onLook={() => d.setDraft({ kind: "route", shape: "line", places: [], look: true })}
            />
          )}
          {d.changed && (
            <p role="status" className="m-0">
              Its shape was changed and is not saved yet.{" "}
              <Button size="sm" variant="outline-primary" onClick={d.undo}>
                One step back
              </Button>
            </p>
          )}
          <SiteMap
            centre={s.head}
            features={d.shown}
            usualBuffer={s.usual_buffer_m}
            selected={d.selected}
            onSelect={(f) => {
              d.select(f);
              set({ tab: "" });
            }}
            drawing={d.draft}
            onPlace={d.place}
            onReshape={may && tab === "map" ? d.reshape : undefined}
            way={home}
            zones={tab === "airspace" ? air.data?.zones : undefined}
            ground={ground}
            line={d.line.length > 1 ? d.line : undefined}
            wind={windOver(sky.data)}
          />
          <MapKey features={d.shown} wind={windOver(sky.data)} />
          {d.line.length > 1 && (
            <HeightsAlong site={id} line={d.line} state={state} onClose={() => d.setLine([])} />
          )}
          {home && tab !== "weather" && <WaysFromTheSide site={id} w={home} state={state} />}
          {tab === "weather" && sky.data && <Hours sky={sky.data} />}
        </div>
        <SitePanels {...{ s, d, may, asks, ready, typed, setTyped, way, sky, air }} />
      </div>
      <p className="soft mt-2">
        Charted by the crew, not surveyed: look again on the spot, wires first. Guidance only; the law, your
        authorisations and the maker&rsquo;s manual decide.
      </p>
    </>
  );
}

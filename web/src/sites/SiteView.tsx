import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Button } from "react-bootstrap";
import { useParams } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { SideView } from "../drawings/SideView";
import { useAddress } from "../parts/address";
import { VerdictMark, worst } from "../parts/Flag";
import { parseInRange } from "../parts/number";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { AirspacePanel } from "./AirspacePanel";
import { FeatureForm } from "./FeatureForm";
import { FilesPanel } from "./FilesPanel";
import {
  blank,
  type Feature,
  heightWords,
  type Kind,
  kindName,
  kinds,
  least,
  type Shape,
  stands,
} from "./kinds";
import { SiteForm } from "./SiteForm";
import { SiteMap } from "./SiteMap";
import { WayHomePanel } from "./WayHomePanel";
import { Hours, WeatherPanel } from "./WeatherPanel";

/** A site file: its map, the way home over it, and the air. */
export function SiteView() {
  const id = useParams().id ?? "";
  const q = useQuery({
    queryKey: keys.site(id),
    queryFn: () => ask(api.GET("/sites/{id}", { params: { path: { id } } })),
  });
  return (
    <QueryView query={q} what="the site">
      {(s) => <Charted s={s} />}
    </QueryView>
  );
}

type Draft = { kind: Kind; shape: Shape; places: Schemas["Place"][]; hole?: boolean };

/** Shapes of one feature as they were changed on the map, newest last; nothing is saved before the form is. */
type Reshaped = { id: string; steps: Pick<Feature, "places" | "holes">[] };

function Charted({ s }: { s: Schemas["Site"] }) {
  const id = s.head.id;
  const qc = useQueryClient();
  const may = useMay()("pilot", "crew");
  const [params, set] = useAddress();
  const tab = params.get("tab") ?? "map";
  const aircraft = params.get("aircraft") ?? "";
  const [setting, setSetting] = useState(params.get("setting") ?? "");
  const [route, setRoute] = useState(params.get("route") ?? "");
  const work = params.get("work") ?? "spraying";
  const ground = params.get("ground") ?? "crops";
  const [selected, setSelected] = useState("");
  const [draft, setDraft] = useState<Draft>();
  const [fresh, setFresh] = useState<Feature>();
  const [reshaped, setReshaped] = useState<Reshaped>();
  const [removed, setRemoved] = useState("");
  const [change, setChange] = useState(false);

  const number = (t: string, min: number, max: number) => {
    const p = parseInRange(t, min, max, "m");
    return p.ok ? p.value : undefined;
  };
  const wayAsk = {
    aircraft: aircraft || undefined,
    setting_m: number(setting, 0, 500),
    route_m: number(route, 0.5, 500),
    work: work as Schemas["Job"]["work"],
  };
  const ready =
    s.features.some((f) => f.feature.kind === "take-off") &&
    s.features.some((f) => f.feature.kind === "area" || f.feature.kind === "route");
  const way = useQuery({
    queryKey: keys.wayHome(id, wayAsk),
    queryFn: () => ask(api.GET("/sites/{id}/way-home", { params: { path: { id }, query: wayAsk } })),
    enabled: ready,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const skyAsk = {
    aircraft: aircraft || undefined,
    work: work as "spraying",
    ground: ground as "crops",
  };
  const sky = useQuery({
    queryKey: keys.sky(id, skyAsk),
    queryFn: () => ask(api.GET("/sites/{id}/weather", { params: { path: { id }, query: skyAsk } })),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
  });

  // As high as the flight goes, where that is known; else as high as the rule lets.
  const airAsk = { height_m: way.data && ready ? way.data.max_agl_m : undefined };
  const air = useQuery({
    queryKey: keys.airspace(id, airAsk),
    queryFn: () => ask(api.GET("/sites/{id}/airspace", { params: { path: { id }, query: airAsk } })),
    placeholderData: keepPreviousData,
    // What is asked for at the desk is answered soon; else a minute is enough.
    refetchInterval: (q) => (q.state.data?.authorisations.some((x) => x.state === "asked") ? 4_000 : 60_000),
  });

  const one = s.features.find((f) => f.feature.id === selected);
  const as = (f: Feature): Feature =>
    reshaped?.id === f.id ? { ...f, ...reshaped.steps[reshaped.steps.length - 1] } : f;
  const now = fresh ? as(fresh) : one && as(one.feature);
  const shown = [...s.features.map((f) => as(f.feature)), ...(fresh ? [as(fresh)] : [])];
  const reshape = (places: Schemas["Place"][], holes: Schemas["Place"][][]) => {
    if (!now) return;
    const before = reshaped?.id === now.id ? reshaped.steps : [];
    setReshaped({ id: now.id, steps: [...before, { places, holes }] });
  };
  const undo = () =>
    setReshaped((r) => (r && r.steps.length > 1 ? { ...r, steps: r.steps.slice(0, -1) } : undefined));

  const finish = (d: Draft) => {
    if (d.places.length < least[d.shape]) return;
    if (d.hole) {
      if (now) reshape(now.places, [...(now.holes ?? []), d.places]);
      setDraft(undefined);
      return;
    }
    setFresh(blank(newId(), d.kind, d.shape, d.places));
    setDraft(undefined);
    setSelected("");
  };
  const place = (p: Schemas["Place"]) => {
    if (!draft) return;
    const next = { ...draft, places: [...draft.places, p] };
    if (draft.shape === "point") finish(next);
    else setDraft(next);
  };
  useEffect(() => {
    if (!draft) return;
    const key = (e: KeyboardEvent) => {
      if (e.key === "Escape") setDraft(undefined);
      if (e.key === "Enter") {
        e.preventDefault(); // the press must not reach the button that comes in place of this one
        finish(draft);
      }
      if (e.key === "Backspace") {
        e.preventDefault();
        setDraft({ ...draft, places: draft.places.slice(0, -1) });
      }
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  });
  const restore = async (f: string) => {
    await ask(api.POST("/sites/{id}/features/{feature}/restore", { params: { path: { id, feature: f } } }));
    setRemoved("");
    await qc.invalidateQueries({ queryKey: ["site"] });
  };
  return (
    <>
      <ViewHead title={s.head.name}>
        {way.data && ready && (
          <span className="d-flex gap-2 align-items-center">
            way home <VerdictMark verdict={way.data.verdict} />
          </span>
        )}
        {sky.data && (
          <span className="d-flex gap-2 align-items-center">
            weather <VerdictMark verdict={sky.data.verdict} />
          </span>
        )}
        {air.data && (
          <span className="d-flex gap-2 align-items-center">
            airspace <VerdictMark verdict={air.data.verdict} />
          </span>
        )}
        <span className="d-flex gap-2 no-print">
          {may && (
            <Button variant="outline-primary" onClick={() => setChange(true)}>
              Change
            </Button>
          )}
          <Button variant="outline-primary" onClick={() => print()}>
            Print
          </Button>
        </span>
        <SiteForm
          key={s.head.version}
          head={s.head}
          open={change}
          onClose={() => setChange(false)}
          onSaved={() => setChange(false)}
        />
      </ViewHead>
      {s.head.note && <p className="mb-2">{s.head.note}</p>}
      <div className="two wide-left">
        <div className="stack">
          {may && (
            <DrawBar
              draft={draft}
              onDraft={setDraft}
              onFinish={finish}
              area={now?.shape === "area" ? now : undefined}
              onFill={() => now && reshape(now.places, (now.holes ?? []).slice(0, -1))}
            />
          )}
          {reshaped && now?.id === reshaped.id && (
            <p role="status" className="m-0">
              Its shape was changed and is not saved yet.{" "}
              <Button size="sm" variant="outline-primary" onClick={undo}>
                One step back
              </Button>
            </p>
          )}
          <SiteMap
            centre={s.head}
            features={shown}
            usualBuffer={s.usual_buffer_m}
            selected={fresh?.id ?? selected}
            onSelect={(f) => {
              setSelected(f);
              setFresh(undefined);
              set({ tab: "" });
            }}
            drawing={draft}
            onPlace={place}
            onReshape={may && tab === "map" ? reshape : undefined}
            way={ready ? way.data : undefined}
            zones={tab === "airspace" ? air.data?.zones : undefined}
            windFrom={sky.data?.latest?.air.from_deg}
          />
          {ready && way.data && tab !== "weather" && (
            <Sheet title="The way home from the side">
              <SideView w={way.data} />
            </Sheet>
          )}
          {tab === "weather" && sky.data && <Hours sky={sky.data} />}
        </div>
        <div className="stack">
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
          {tab === "map" && removed && (
            <p role="status" className="m-0">
              Taken off the map.{" "}
              <Button size="sm" variant="outline-primary" onClick={() => void restore(removed)}>
                Bring it back
              </Button>
            </p>
          )}
          {tab === "map" && fresh && (
            <FeatureForm
              key={fresh.id}
              site={id}
              f={as(fresh)}
              version={0}
              findings={[]}
              usualBuffer={s.usual_buffer_m}
              onDone={() => {
                setFresh(undefined);
                setReshaped(undefined);
              }}
              onRemoved={() => setFresh(undefined)}
            />
          )}
          {tab === "map" && !fresh && one && (
            <FeatureForm
              key={`${one.feature.id}-${one.version}`}
              site={id}
              f={as(one.feature)}
              version={one.version}
              findings={one.findings}
              usualBuffer={s.usual_buffer_m}
              onDone={() => {
                setSelected("");
                setReshaped(undefined);
              }}
              onRemoved={(f) => {
                setSelected("");
                setRemoved(f);
              }}
            />
          )}
          {tab === "map" && !fresh && !one && <FeatureList s={s} onSelect={setSelected} />}
          {tab === "home" &&
            (ready ? (
              <WayHomePanel
                w={way.data}
                error={way.error}
                aircraft={aircraft}
                setting={setting}
                route={route}
                onChange={(c) => {
                  // What is typed stands here first; the address follows.
                  if (c.setting !== undefined) setSetting(c.setting);
                  if (c.route !== undefined) setRoute(c.route);
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
              aircraft={aircraft}
              work={work}
              ground={ground}
              may={may}
              onChange={set}
            />
          )}
          {tab === "airspace" && <AirspacePanel site={id} a={air.data} error={air.error} may={may} />}
          {tab === "files" && <FilesPanel s={s} may={may} />}
        </div>
      </div>
      <p className="soft mt-2">
        Charted by the crew, not surveyed: look again on the spot, wires first. Guidance only; the law, your
        authorisations and the maker&rsquo;s manual decide.
      </p>
    </>
  );
}

interface DrawBarProps {
  draft?: Draft;
  onDraft: (d: Draft | undefined) => void;
  onFinish: (d: Draft) => void;
  /** The selected area, in which holes can be drawn. */
  area?: Feature;
  onFill: () => void;
}

function DrawBar({ draft, onDraft, onFinish, area, onFill }: DrawBarProps) {
  const [kind, setKind] = useState<Kind>("take-off");
  const [shape, setShape] = useState<Shape>("point");
  const shapes = kinds.find((k) => k.kind === kind)?.shapes ?? ["point"];
  const now = shapes.includes(shape) ? shape : (shapes[0] ?? "point");
  if (draft)
    return (
      <div key="drawing" className="drawbar" role="status">
        <span>
          {draft.shape === "point"
            ? `Press on the map where the ${kindName(draft.kind).toLowerCase()} is.`
            : `Press on the map, corner by corner${draft.hole ? " of the hole" : ""}: ${draft.places.length} so far, at least ${least[draft.shape]}.`}
        </span>
        <Button disabled={draft.places.length < least[draft.shape]} onClick={() => onFinish(draft)}>
          Done
        </Button>
        <Button
          variant="outline-primary"
          disabled={draft.places.length === 0}
          onClick={() => onDraft({ ...draft, places: draft.places.slice(0, -1) })}
        >
          Last one back
        </Button>
        <Button variant="outline-primary" onClick={() => onDraft(undefined)}>
          Leave it
        </Button>
      </div>
    );
  return (
    <div key="choosing" className="drawbar no-print">
      <select
        className="form-select"
        aria-label="What to draw"
        value={kind}
        onChange={(e) => setKind(e.target.value as Kind)}
      >
        {kinds.map((k) => (
          <option key={k.kind} value={k.kind}>
            {k.name}
          </option>
        ))}
      </select>
      {shapes.length > 1 && (
        <select
          className="form-select"
          aria-label="As"
          value={now}
          onChange={(e) => setShape(e.target.value as Shape)}
        >
          {shapes.map((k) => (
            <option key={k} value={k}>
              as {k === "area" ? "an" : "a"} {k}
            </option>
          ))}
        </select>
      )}
      <Button onClick={() => onDraft({ kind, shape: now, places: [] })}>Draw it</Button>
      {area && (
        <Button
          variant="outline-primary"
          onClick={() => onDraft({ kind: area.kind, shape: "area", places: [], hole: true })}
        >
          Draw a hole in it
        </Button>
      )}
      {area?.holes && area.holes.length > 0 && (
        <Button variant="outline-primary" onClick={onFill}>
          Fill the last hole
        </Button>
      )}
    </div>
  );
}

function FeatureList({ s, onSelect }: { s: Schemas["Site"]; onSelect: (id: string) => void }) {
  if (s.features.length === 0)
    return (
      <Empty>
        The map is empty. Choose what to draw above it and press on the map, or bring in a file: first where
        you take off, then the area, then everything that stands there.
      </Empty>
    );
  return (
    <Sheet title="On the map">
      <ul className="onmap">
        {kinds
          .flatMap((k) => s.features.filter((f) => f.feature.kind === k.kind))
          .map((f) => (
            <li key={f.feature.id}>
              <button type="button" onClick={() => onSelect(f.feature.id)}>
                <span>
                  <strong>{f.feature.name || kindName(f.feature.kind)}</strong>{" "}
                  <span className="soft">{kindName(f.feature.kind).toLowerCase()}</span>
                </span>
                <span className={stands(f.feature.kind) ? "fig" : "soft"}>
                  {stands(f.feature.kind) ? heightWords(f.feature) : f.feature.what}
                </span>
                {f.feature.kind === "take-off" && (
                  <VerdictMark verdict={worst(f.findings.map((j) => j.verdict))} />
                )}
              </button>
            </li>
          ))}
      </ul>
    </Sheet>
  );
}

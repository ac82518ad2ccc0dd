import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { marksOf } from "../day/DayView";
import { Airframe } from "../drawings/Airframe";
import { Rope } from "../drawings/Rope";
import { VerdictMark } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { Hoist } from "../parts/Hoist";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { CompassPanel } from "../practice/CompassPanel";
import { DefectDecision } from "../workshop/Defects";
import { FitParts, GroundAircraft, ReturnAircraft } from "./acts";
import { FirmwarePanel } from "./FirmwarePanel";
import { RaiseDefect } from "./RaiseDefect";
import { ReportIncident } from "./ReportIncident";
import { TrendsPanel } from "./TrendsPanel";
import { EditAircraft } from "./EditAircraft";
import { counted } from "../parts/number";

type Detail = Schemas["AircraftDetail"];
type Act = "ground" | "return" | "fit" | "defect" | "edit" | "incident";

/** One aircraft: its plan, what is against it, and the story of the chosen station. */
export function AircraftView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.aircraft(id),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id } } })),
    refetchInterval: 60_000,
  });
  return (
    <QueryView query={q} what="the aircraft">
      {(d) => <Aircraft d={d} />}
    </QueryView>
  );
}

function Aircraft({ d }: { d: Detail }) {
  const [params, change] = useAddress();
  const may = useMay();
  const position = d.type.positions.find((p) => p.id === params.get("part"));
  const station = params.get("station") ?? position?.station ?? "";
  const act = (params.get("act") as Act | null) ?? (params.get("fit") ? "fit" : null);
  const defect = d.defects.find((x) => x.id === params.get("defect"));
  const set = (to: Record<string, string>) => change({ fit: "", ...to });
  const close = () => set({ act: "" });
  const propellers = d.type.positions.filter((p) => p.kind === "propeller").map((p) => p.id);
  const fitting = params.get("fitting") ?? "";
  const a = d.aircraft;
  return (
    <>
      <ViewHead title={a.name}>
        <Link className="btn btn-primary" to={`/walk/start/${a.id}`}>
          Walkround
        </Link>
        <Link className="btn btn-outline-primary" to={`/gate/${a.id}`}>
          Gate
        </Link>
        {may("pilot", "crew", "technician") && (
          <>
            <Button variant="outline-primary" onClick={() => set({ act: "defect" })}>
              Raise a defect
            </Button>
            <Button variant="outline-primary" onClick={() => set({ act: "incident" })}>
              Something happened
            </Button>
            <Button variant="outline-danger" onClick={() => set({ act: "ground" })}>
              Ground it
            </Button>
          </>
        )}
        {may("technician") && (
          <Button variant="outline-primary" onClick={() => set({ act: "edit" })}>
            Change
          </Button>
        )}
      </ViewHead>
      <div className="two wide-left">
        <div className="sheet">
          <div className="d-flex justify-content-between flex-wrap gap-2">
            <VerdictMark verdict={d.verdict} big />
            <span className="soft">
              {d.type.profile.name} · {a.serial} · {a.registration || "not registered"}
              {a.registration_expires && `, valid through ${a.registration_expires}`}
              {!a.active && " · out of service"}
            </span>
          </div>
          <Airframe
            type={d.type}
            marks={marksOf(d.stations)}
            selected={station}
            onSelect={(s) => set({ station: s === station ? "" : s, part: "" })}
            height="min(56vh, 470px)"
            label={`Plan of ${a.name}; choose a station for its story`}
          />
          <div className="soft fig">
            {a.hours.toFixed(1)} h · {counted(a.flights, "flight")} · {counted(a.landings, "landing")}
          </div>
        </div>
        <div className="stack">
          {station ? (
            <StationStory
              d={d}
              station={station}
              onFit={(p) => set({ act: "fit", fitting: p })}
              mayFit={may("technician")}
            />
          ) : (
            <Sheet title="What is against it">
              {d.findings.length === 0 ? (
                <p className="m-0">
                  Nothing against the aircraft itself. The gate asks for packs, pilot and wind.
                </p>
              ) : (
                <Hoist
                  findings={d.findings}
                  aircraft={a.id}
                  here={{
                    propellers: may("technician")
                      ? () => set({ act: "fit", station: "", part: "", fitting: "" })
                      : undefined,
                    return: may("technician") ? () => set({ act: "return" }) : undefined,
                  }}
                />
              )}
              {d.groundings.length > 0 && may("technician") && (
                <Button className="mt-2" onClick={() => set({ act: "return" })}>
                  Return to service
                </Button>
              )}
            </Sheet>
          )}
          <Defects d={d} chosen={defect?.id} />
          {d.orders.length > 0 && (
            <Sheet title="Work that is open">
              <ul className="mb-0 ps-3">
                {d.orders.map((o) => (
                  <li key={o.id}>
                    <Link to={`/workshop/orders/${o.id}`}>{o.title}</Link>
                    {o.state === "signed" && " · acceptance flight due"}
                  </li>
                ))}
              </ul>
            </Sheet>
          )}
        </div>
      </div>
      <Parts
        d={d}
        onChoose={(p) => {
          set({ part: p, station: "" });
          window.scrollTo(0, 0); // the story stands at the top
        }}
      />
      <TrendsPanel type={d.type} aircraft={a.id} />
      <CompassPanel d={d} />
      <FirmwarePanel aircraft={a.id} typeKey={d.type.profile.key} />
      <GroundAircraft open={act === "ground"} onClose={close} d={d} />
      <ReturnAircraft open={act === "return"} onClose={close} d={d} />
      <FitParts
        key={fitting}
        open={act === "fit"}
        onClose={close}
        d={d}
        positions={fitting ? [fitting] : propellers}
      />
      <ReportIncident open={act === "incident"} onClose={close} d={d} />
      <RaiseDefect
        open={act === "defect"}
        onClose={close}
        aircraft={a.id}
        stations={d.type.stations}
        station={station || "frame"}
      />
      {act === "edit" && <EditAircraft onClose={close} a={a} />}
    </>
  );
}

const removedWords: Record<string, string> = { discard: "discarded", shelf: "to the shelf", swap: "swapped" };

function StationStory({
  d,
  station,
  onFit,
  mayFit,
}: {
  d: Detail;
  station: string;
  onFit: (position: string) => void;
  mayFit: boolean;
}) {
  const z = useZone();
  const s = d.type.stations.find((x) => x.id === station);
  const state = d.stations.find((x) => x.station === station);
  const positions = d.type.positions.filter((p) => p.station === station);
  const history = d.history.filter((h) => positions.some((p) => p.id === h.station));
  if (!s || !state) return null;
  return (
    <Sheet title={s.label} aside={<VerdictMark verdict={state.verdict} />}>
      <p>{state.sentence}</p>
      {positions.map((at) => {
        const part = d.parts.find((x) => x.station === at.id);
        return (
          <div key={at.id} className="mb-2">
            <div className="d-flex justify-content-between gap-2 flex-wrap align-items-center">
              <span>
                {positions.length > 1 && <strong>{at.label}: </strong>}
                {part ? (
                  <>
                    {part.kind.replace(/-/g, " ")}{" "}
                    <Link className="fig" to={`/part/${part.id}`}>
                      {part.serial}
                    </Link>
                    , {part.source === "maker" ? "maker's part" : "third-party part"}, {part.hours.toFixed(1)}{" "}
                    h, {counted(part.flights, "flight")}
                    {part.fitted_at && `, fitted ${z.date(part.fitted_at)}`}
                  </>
                ) : (
                  <span className="soft">nothing recorded</span>
                )}
              </span>
              {mayFit && (
                <Button size="sm" variant="outline-primary" onClick={() => onFit(at.id)}>
                  {part ? "Replace it" : "Fit a part"}
                </Button>
              )}
            </div>
            {part && part.fraction > 0 && (
              <Rope used={part.fraction} verdict={part.verdict} label={part.due} />
            )}
          </div>
        );
      })}
      {history.length > 0 && (
        <>
          <h3 className="mt-3">What has been here</h3>
          <ul className="mb-0 ps-3">
            {history.map((h, i) => (
              <li key={i}>
                <span className="fig">{h.serial}</span>
                {positions.length > 1 && ` (${positions.find((p) => p.id === h.station)?.label})`} from{" "}
                {z.date(h.fitted_at)}
                {h.removed_at
                  ? ` to ${z.date(h.removed_at)} (${removedWords[h.removed_to] ?? h.removed_to})`
                  : ", still fitted"}
                ; {h.by}
              </li>
            ))}
          </ul>
        </>
      )}
    </Sheet>
  );
}

function Defects({ d, chosen }: { d: Detail; chosen?: string }) {
  const z = useZone();
  return (
    <Sheet title="Open defects">
      {d.defects.length === 0 && <p className="m-0 soft">None.</p>}
      {d.defects.map((x) => (
        <div key={x.id} className={x.id === chosen ? "judged watch mb-2" : "mb-2"}>
          <div className="d-flex justify-content-between gap-2">
            <strong>{x.title}</strong>
            <VerdictMark verdict={x.severity} />
          </div>
          {x.note && <div>{x.note}</div>}
          {x.photos.length > 0 && (
            <div className="photos my-1">
              {x.photos.map((p) => (
                <a key={p} href={`/api/v1/photos/${p}`} target="_blank" rel="noreferrer">
                  <img src={`/api/v1/photos/${p}`} alt={`Photo of: ${x.title}`} />
                </a>
              ))}
            </div>
          )}
          <div className="soft">
            {d.type.stations.find((s) => s.id === x.station)?.label} · {x.raised_by}, {z.both(x.raised_at)}
          </div>
          <DefectDecision d={x} />
        </div>
      ))}
    </Sheet>
  );
}

function Parts({ d, onChoose }: { d: Detail; onChoose: (station: string) => void }) {
  const z = useZone();
  const [all, setAll] = useState(false);
  const parts = [...d.parts].sort((a, b) => b.fraction - a.fraction);
  return (
    <div className="sheet mt-3">
      <h2>Parts, nearest to their limit first</h2>
      <ScrollX label="Parts">
        <table className="ledger">
          <thead>
            <tr>
              <th>Station</th>
              <th>Serial</th>
              <th className="num">Hours</th>
              <th className="num">Flights</th>
              <th>Fitted</th>
              <th>Life</th>
            </tr>
          </thead>
          <tbody>
            {(all ? parts : parts.slice(0, 6)).map((p) => (
              <tr key={p.id}>
                <td>
                  <button
                    type="button"
                    className="btn btn-link p-0 text-start"
                    onClick={() => onChoose(p.station)}
                  >
                    {p.station_label}
                  </button>
                </td>
                <td className="fig">{p.serial}</td>
                <td className="num">{p.hours.toFixed(1)}</td>
                <td className="num">{p.flights}</td>
                <td className="fig">{p.fitted_at && z.date(p.fitted_at)}</td>
                <td>
                  <VerdictMark verdict={p.verdict} /> {p.due}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollX>
      {parts.length > 6 && (
        <Button variant="outline-primary" size="sm" className="mt-2" onClick={() => setAll(!all)}>
          {all ? "Show fewer" : `Show all ${parts.length}`}
        </Button>
      )}
    </div>
  );
}

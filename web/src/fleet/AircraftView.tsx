import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { marksOf } from "../day/DayView";
import { Airframe } from "../drawings/Airframe";
import { VerdictMark } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { Hoist } from "../parts/Hoist";
import { useAbout } from "../outbox/hooks";
import { Waits } from "../outbox/Waits";
import { Sheet, ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { CompassPanel } from "../practice/CompassPanel";
import { FitParts, GroundAircraft, ReturnAircraft } from "./acts";
import { OpenDefects } from "./OpenDefects";
import { PartsTable } from "./PartsTable";
import { StationStory } from "./StationStory";
import { Tabs } from "../parts/Tabs";
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
  const raised = useAbout(d.aircraft.id); // defects that wait on this device
  const position = d.type.positions.find((p) => p.id === params.get("part"));
  const station = params.get("station") ?? position?.station ?? "";
  const act = (params.get("act") as Act | null) ?? (params.get("fit") ? "fit" : null);
  const defect = d.defects.find((x) => x.id === params.get("defect"));
  const set = (to: Record<string, string>) => change({ fit: "", ...to });
  const close = () => set({ act: "" });
  const propellers = d.type.positions.filter((p) => p.kind === "propeller").map((p) => p.id);
  const fitting = params.get("fitting") ?? "";
  const a = d.aircraft;
  const tab = params.get("tab") ?? "now";
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
      <Tabs
        label={`What to see of ${a.name}`}
        tabs={[
          { key: "now", name: "Now" },
          { key: "parts", name: "Parts", count: d.parts.length },
          { key: "trends", name: "Motors over time" },
          { key: "set", name: "Compass and firmware" },
        ]}
      />
      <Waits about={raised} />
      {tab === "now" && (
        <>
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
                      back={{ to: `/fleet/${a.id}`, name: a.name }}
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
              <OpenDefects d={d} chosen={defect?.id} />
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
        </>
      )}
      {tab === "parts" && <PartsTable d={d} onChoose={(p) => set({ part: p, station: "", tab: "" })} />}
      {tab === "trends" && <TrendsPanel type={d.type} aircraft={a.id} />}
      {tab === "set" && (
        <>
          <CompassPanel d={d} />
          <FirmwarePanel aircraft={a.id} typeKey={d.type.profile.key} />
        </>
      )}
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

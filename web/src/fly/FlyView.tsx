import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay, useSession } from "../app/session";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { hoursMinutes, setServerTime, useNow, useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { CorrectFlight } from "./CorrectFlight";
import { Hover } from "./Hover";
import { LogForm } from "./LogForm";
import { landingCalls } from "./model";

type Flight = Schemas["Flight"];
type Kind = Schemas["EventKind"];

export const eventWords: Record<Kind, string> = {
  warning: "Warning",
  gust: "Gust",
  bird: "Bird",
  person: "Person in area",
  "link-loss": "Link lost",
  takeover: "Takeover",
  "hard-landing": "Hard landing",
  contact: "Contact",
  vibration: "Vibration",
  "call-out": "Pack called",
};

/** A flight from take-off to the log. In the air nothing but what is needed there. */
export function FlyView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.flight(id),
    queryFn: async () => {
      const f = await ask(api.GET("/flights/{id}", { params: { path: { id } } }));
      setServerTime(f.now);
      return f;
    },
    refetchInterval: (x) => (x.state.data?.state === "air" ? 5000 : false),
  });
  return (
    <QueryView query={q} what="the flight">
      {(f) =>
        f.state === "air" ? <InTheAir f={f} /> : f.state === "landed" ? <Landed f={f} /> : <Logged f={f} />
      }
    </QueryView>
  );
}

function clock(seconds: number): string {
  const s = Math.max(0, Math.floor(seconds));
  return `${String(Math.floor(s / 60)).padStart(2, "0")}:${String(s % 60).padStart(2, "0")}`;
}

function InTheAir({ f }: { f: Flight }) {
  const qc = useQueryClient();
  const now = useNow();
  const { person } = useSession();
  const may = useMay();
  const [error, setError] = useState<unknown>();
  const [noted, setNoted] = useState<Kind | null>(null);
  const [note, setNote] = useState("");
  const limits = f.type.profile.limits;
  const packs = f.type.profile.packs;
  const t = (now - Date.parse(f.took_off_at)) / 1000;
  const standing = f.events.filter((e) => e.taken_back_by === undefined);
  const calls = standing.filter((e) => e.kind === "call-out").length;
  const nextCall = (calls + 1) * packs.call_out_every_s;
  const lands = landingCalls(f.type);
  const landBy = limits.planned_minutes * 60;
  const mine = f.pilot_id === person.id || may();

  const log = async (kind: Kind, text = "") => {
    setError(undefined);
    try {
      qc.setQueryData(
        keys.flight(f.id),
        await ask(
          api.POST("/flights/{id}/events", {
            params: { path: { id: f.id } },
            body: { id: newId(), kind, note: text },
          }),
        ),
      );
      setNoted(null);
      setNote("");
    } catch (e) {
      setError(e);
    }
  };
  const takeBack = async (event: string) => {
    setError(undefined);
    try {
      qc.setQueryData(
        keys.flight(f.id),
        await ask(api.DELETE("/flights/{id}/events/{event}", { params: { path: { id: f.id, event } } })),
      );
    } catch (e) {
      setError(e);
    }
  };
  const last = standing.at(-1);
  const undo =
    last && last.kind !== "contact" && last.kind !== "hard-landing" && now - Date.parse(last.at) < 15_000
      ? last
      : undefined;
  const land = async () => {
    setError(undefined);
    try {
      qc.setQueryData(
        keys.flight(f.id),
        await ask(api.POST("/flights/{id}/land", { params: { path: { id: f.id } } })),
      );
      await qc.invalidateQueries({ queryKey: keys.day });
    } catch (e) {
      setError(e);
    }
  };
  const quick: Kind[] = ["warning", "gust", "bird", "person", "link-loss", "takeover", "vibration"];
  return (
    <>
      <div className="d-flex justify-content-between flex-wrap gap-2">
        <h1 className="m-0">{f.aircraft} in the air</h1>
        <span className="soft">
          {f.pilot} · {f.purpose}
        </span>
      </div>
      {error !== undefined && <Problem error={error} />}
      {f.alerts.map((x, i) => (
        <div key={i} className={`notice ${x.verdict === "stop" ? "bad" : ""} mb-2`} role="alert">
          <VerdictMark verdict={x.verdict} />
          <p className="m-0">{x.sentence}</p>
        </div>
      ))}
      <div className="timer" role="timer" aria-label="Time since take-off">
        {clock(t)}
      </div>
      <div className="callouts">
        <div className={t >= nextCall ? "due" : ""}>
          <div>{t >= nextCall ? "Call the pack now" : "Next pack call in"}</div>
          <div className="fig">{t >= nextCall ? clock(t - nextCall) : clock(nextCall - t)}</div>
          <Button size="sm" variant="outline-primary" onClick={() => void log("call-out")}>
            Called
          </Button>
        </div>
        <div className={t >= landBy ? "due" : ""}>
          <div>{t >= landBy ? "Over the planned time by" : "Planned time left"}</div>
          <div className="fig">{clock(Math.abs(landBy - t))}</div>
          <div className="soft">of {limits.planned_minutes} min</div>
        </div>
        <div>
          <div>Land by, whichever comes first</div>
          <div className="fig">{lands.first}</div>
          <div className="soft">{lands.then}</div>
        </div>
        <div>
          <div>Logged</div>
          <div className="fig">{standing.filter((e) => e.kind !== "call-out").length}</div>
          <div className="soft">
            {standing
              .filter((e) => e.kind !== "call-out")
              .slice(-3)
              .map((e) => eventWords[e.kind])
              .join(", ")}
          </div>
        </div>
      </div>
      <div className="events mb-3">
        {quick.map((k) => (
          <Button key={k} variant="outline-primary" onClick={() => void log(k)}>
            {eventWords[k]}
          </Button>
        ))}
        <Button variant="outline-danger" onClick={() => setNoted("hard-landing")}>
          Hard landing
        </Button>
        <Button variant="outline-danger" onClick={() => setNoted("contact")}>
          Contact
        </Button>
      </div>
      {undo && (
        <Button variant="outline-primary" className="mb-3 w-100" onClick={() => void takeBack(undo.id)}>
          Take back: {eventWords[undo.kind]}
        </Button>
      )}
      {mine && (
        <Button className="btn-land" onClick={() => void land()}>
          LAND
        </Button>
      )}
      {f.type.profile.geometry.kind !== "fixed-wing" && <Hover f={f} />}
      <Dialog title={noted ? eventWords[noted] : ""} open={noted !== null} onClose={() => setNoted(null)}>
        <p>
          {noted === "contact"
            ? "Contact with something hard grounds the aircraft until every propeller is replaced, even one that looks fine."
            : "A hard landing grounds the aircraft until a technician or chief has inspected it."}
        </p>
        <AreaField
          label="What happened"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          maxLength={500}
        />
        <Button variant="danger" className="w-100" onClick={() => noted && void log(noted, note)}>
          Log it and ground the aircraft
        </Button>
      </Dialog>
    </>
  );
}

function Landed({ f }: { f: Flight }) {
  const z = useZone();
  const qc = useQueryClient();
  const [error, setError] = useState<unknown>();
  const resume = async () => {
    try {
      qc.setQueryData(
        keys.flight(f.id),
        await ask(api.POST("/flights/{id}/resume", { params: { path: { id: f.id } } })),
      );
    } catch (e) {
      setError(e);
    }
  };
  return (
    <>
      <ViewHead title={`${f.aircraft} has landed`}>
        <Button variant="outline-primary" onClick={() => void resume()}>
          Still in the air: take LAND back
        </Button>
        <span className="fig">
          {z.time(f.took_off_at)}–{f.landed_at && z.time(f.landed_at)}, {clock(f.seconds)}
        </span>
      </ViewHead>
      {error !== undefined && <Problem error={error} />}
      <div className="notice mb-3">
        <p>
          <strong>Disconnect the {f.packs.length > 1 ? "packs" : "pack"} first.</strong> Then feel or measure
          every motor and the {f.packs.length > 1 ? "packs" : "pack"}, and log while it is fresh.
        </p>
      </div>
      <LogForm f={f} />
    </>
  );
}

/** After a contact or a hard landing: whether the authority must be told, while it is known what happened. */
function AskReport({ f }: { f: Flight }) {
  const hit = f.events.find((e) => e.kind === "contact" || e.kind === "hard-landing");
  const may = useMay()("pilot", "crew", "technician");
  const rule = useQuery({
    queryKey: keys.reports,
    queryFn: () => ask(api.GET("/reports")),
    enabled: hit !== undefined && may,
  });
  if (!hit || !may) return null;
  const to = new URLSearchParams({
    tab: "reports",
    report: "new",
    aircraft: f.aircraft_id,
    at: hit.at,
    what: `${eventWords[hit.kind]} of ${f.aircraft}${hit.note ? `: ${hit.note}` : ""}`,
  });
  return (
    <div className="notice mb-3 no-print">
      <div>
        <p>
          Does this have to be told to the authority?{" "}
          {rule.data && `${rule.data.statement} (${rule.data.citation})`}
        </p>
        <Link className="btn btn-outline-primary mt-2" to={`/rules?${to}`}>
          It must be reported
        </Link>
      </div>
    </div>
  );
}

function Logged({ f }: { f: Flight }) {
  const z = useZone();
  const u = useUnits();
  const may = useMay();
  const [correcting, setCorrecting] = useState(false);
  return (
    <>
      <ViewHead title={`Flight of ${f.aircraft}`}>
        <Link className="btn btn-primary" to={`/walk/start/${f.aircraft_id}?kind=turnaround`}>
          Turnaround for the next one
        </Link>
        <Link className="btn btn-outline-primary" to="/log">
          Log
        </Link>
        {may("chief") && (
          <Button variant="outline-primary" onClick={() => setCorrecting(true)}>
            Correct it
          </Button>
        )}
      </ViewHead>
      {correcting && <CorrectFlight f={f} onClose={() => setCorrecting(false)} />}
      <AskReport f={f} />
      <Sheet title="On record">
        <p>
          {z.both(f.took_off_at)}, {hoursMinutes(f.seconds)} h, {f.landings} landing(s). {f.purpose}. Pilot{" "}
          {f.pilot}. Packs {f.packs.map((p) => p.label).join(", ")}.
        </p>
        {f.litres > 0 && <p>Sprayed {u.show("volume", f.litres)}.</p>}
        {f.acceptance && <p>Acceptance flight after: {f.acceptance}.</p>}
        {f.corrections.map((c) => (
          <p key={c.at}>
            <strong>Corrected</strong> to {clock(c.seconds)}, {c.landings} landing(s): {c.reason}{" "}
            <span className="soft">
              ({c.by}, {z.both(c.at)})
            </span>
          </p>
        ))}
        {f.remarks && <p>{f.remarks}</p>}
        {f.hover && (
          <p>
            Hover: <VerdictMark verdict={f.hover.verdict} /> {f.hover.sentence}
          </p>
        )}
        {f.warmth && (
          <p>
            Motors after landing: <VerdictMark verdict={f.warmth.verdict} /> {f.warmth.sentence}
          </p>
        )}
        {f.events.length > 0 && (
          <ul className="mb-0">
            {f.events.map((e) => (
              <li key={e.id}>
                <span className="fig">{z.time(e.at)}</span> {eventWords[e.kind]} {e.note && `– ${e.note}`}{" "}
                <span className="soft">
                  ({e.by}
                  {e.taken_back_by !== undefined && `, taken back by ${e.taken_back_by}`})
                </span>
              </li>
            ))}
          </ul>
        )}
      </Sheet>
    </>
  );
}

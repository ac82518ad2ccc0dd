import { Notice } from "../parts/Notice";
import { useEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { useLink } from "../api/link";
import { useQuiet } from "../parts/quiet";
import { useMay, useSession } from "../parts/session";
import type { About } from "../outbox/model";
import { HomeTable } from "./energy/HomeTable";
import { Waits } from "../outbox/Waits";
import { VerdictMark } from "../parts/Flag";
import { signal, useAwake } from "../parts/signal";
import { Soon } from "../parts/Soon";
import { useNow } from "../parts/time";
import { newId } from "../api/client";
import { useFlightPress } from "./api";
import { CallOuts } from "./CallOuts";
import { EventKeys } from "./EventKeys";
import { GroundingEvent } from "./GroundingEvent";
import { Hover } from "./Hover";
import { clock, eventWords, grounds, signals, type EventKind, type Flight } from "./model";
import { Sound } from "./Sound";
import { Thumb } from "../parts/Thumb";

export interface FlightShown {
  f: Flight;
  about: About;
}

/** How long LAND stays a press away from a slip, and an event can be taken back, in ms. */
const takeBackFor = 15_000;

/** In the air: the time, what is called when, the events, and LAND under the thumb. */
export function InTheAir({ f, about }: FlightShown) {
  useQuiet();
  const now = useNow();
  const { person } = useSession();
  const may = useMay();
  const link = useLink();
  const awake = useAwake();
  const press = useFlightPress(f.id);
  const [asked, setAsked] = useState<EventKind | null>(null);
  const t = (now - Date.parse(f.took_off_at)) / 1000;
  useSignals(f, t);
  const standing = f.events.filter((e) => e.taken_back_by === undefined);
  const last = standing.at(-1);
  const undo = last && !grounds(last.kind) && now - Date.parse(last.at) < takeBackFor ? last : undefined;
  const log = (kind: EventKind, note = "") => {
    press("fly.event", { id: newId(), kind, note });
    setAsked(null);
  };
  const takingOff = about.waiting.some((p) => p.opens);
  return (
    <div className="d-flex flex-column flex-grow-1">
      <div className="d-flex justify-content-between flex-wrap">
        <h1>{f.aircraft} in the air</h1>
        <span className="soft d-none d-sm-inline">
          {f.pilot} · {f.purpose}
        </span>
      </div>
      {takingOff && <Asking up={link.up} />}
      {f.alerts.map((x, i) => (
        <Notice
          key={i}
          verdict={x.verdict === "stop" ? "stop" : "clear"}
          role="alert"
          className="mb-2 py-1 px-2"
        >
          <VerdictMark verdict={x.verdict} />
          <p className="m-0">{x.sentence}</p>
        </Notice>
      ))}
      <div className="timer" role="timer" aria-label="Time since take-off">
        {clock(t)}
      </div>
      <Soon>
        <CallOuts f={f} t={t} onCalled={() => log("call-out")} />
        {f.home && f.home.length > 0 && (
          <div className="d-flex flex-wrap column-gap-3 align-items-baseline">
            <strong>To come home:</strong> <HomeTable home={f.home} />
          </div>
        )}
        <EventKeys onPress={(k) => (grounds(k) ? setAsked(k) : log(k))} />
        <div className="d-flex flex-wrap column-gap-4 align-items-start">
          {f.type.profile.geometry.kind !== "fixed-wing" && <Hover f={f} />}
          <Sound awake={awake} />
        </div>
      </Soon>
      <Thumb>
        <Waits about={{ ...about, waiting: about.waiting.filter((p) => !p.opens) }} />
        <div className="d-flex flex-column flex-lg-row gap-2">
          {undo && (
            <Button
              variant="outline-primary"
              className="btn-big flex-shrink-0"
              onClick={() => press("fly.event-back", { event: undo.id, kind: undo.kind })}
            >
              Take back: {eventWords[undo.kind]}
            </Button>
          )}
          {(f.pilot_id === person.id || may()) && (
            <Button className="btn-land" onClick={() => press("fly.land", {})}>
              LAND
            </Button>
          )}
        </div>
      </Thumb>
      <GroundingEvent kind={asked} onClose={() => setAsked(null)} onLog={log} />
    </div>
  );
}

/** The gate is asked once more at take-off; without network nobody could ask it. */
function Asking({ up }: { up: boolean }) {
  return (
    <Notice role="status" className="mb-2">
      <VerdictMark verdict="watch" />
      <p className="m-0">
        {up
          ? "The gate is asked once more. Stay on the ground until this line has gone."
          : "No network: the gate could not be asked once more. The release holds for 60 minutes from its signature; lift off only if nothing has changed since."}
      </p>
    </Notice>
  );
}

/** Says what is due, once each, and goes on saying that it is time to land. */
function useSignals(f: Flight, t: number) {
  const said = useRef(new Set<string>());
  const again = useRef(0);
  useEffect(() => {
    const due = signals(f, t);
    const fresh = due.filter((s) => !said.current.has(s.key));
    const urgent = due.some((s) => s.urgent);
    fresh.forEach((s) => said.current.add(s.key));
    if (fresh.length > 0 || (urgent && t - again.current >= 10)) {
      again.current = t;
      signal(urgent);
    }
  }, [f, t]);
}

import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { useMay } from "../parts/session";
import { Waits } from "../outbox/Waits";
import { VerdictMark } from "../parts/Flag";
import { counted } from "../parts/number";
import { Sheet, ViewHead } from "../parts/Sheet";
import { hoursMinutes, useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { AskReport } from "./AskReport";
import { CorrectFlight } from "./CorrectFlight";
import type { FlightShown } from "./InTheAir";
import { clock, eventWords } from "./model";

/** A flight on record: what happened, and what comes next. */
export function Logged({ f, about }: FlightShown) {
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
        <Link className="btn btn-outline-primary" to={`/walk/start/${f.aircraft_id}?kind=stand-down`}>
          Stand-down
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
      <Waits about={about} />
      {correcting && <CorrectFlight f={f} onClose={() => setCorrecting(false)} />}
      <AskReport f={f} />
      <Sheet title={about.waiting.length > 0 ? "Kept on this device, not on record yet" : "On record"}>
        <p>
          {z.both(f.took_off_at)}, {hoursMinutes(f.seconds)} h, {counted(f.landings, "landing")}. {f.purpose}.
          Pilot {f.pilot}. Packs {f.packs.map((p) => p.label).join(", ")}.
        </p>
        {f.unasked && (
          <p>
            <VerdictMark verdict="stop" /> Taken off without asking the gate once more. When it was heard:{" "}
            {f.unasked}
          </p>
        )}
        {(f.took_off_heard_at || f.landed_heard_at) && (
          <p className="soft">
            Pressed without network
            {f.took_off_heard_at && `; the take-off was heard at ${z.both(f.took_off_heard_at)}`}
            {f.landed_heard_at && `; the landing was heard at ${z.both(f.landed_heard_at)}`}.
          </p>
        )}
        {f.litres > 0 && <p>Sprayed {u.show("volume", f.litres)}.</p>}
        {f.acceptance && <p>Acceptance flight after: {f.acceptance}.</p>}
        {f.corrections.map((c) => (
          <p key={c.at}>
            <strong>Corrected</strong> to {clock(c.seconds)}, {counted(c.landings, "landing")}: {c.reason}{" "}
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

import { Notice } from "../../parts/Notice";
import { useEffect, useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useLink } from "../../api/link";
import { warm } from "../../parts/warm";
import { useQuiet } from "../../parts/quiet";
import { useMay } from "../../parts/session";
import { useOwnFlights } from "../api";
import { clearDraft } from "../../parts/drafts";
import { VerdictMark } from "../../parts/Flag";
import { counted } from "../../parts/number";
import { openSound } from "../../parts/signal";
import { Sheet } from "../../parts/Sheet";
import { Problem } from "../../parts/states";
import { serverNow, useNow, useZone } from "../../parts/time";
import { useTakeOff, useWithdrawRelease } from "./api";
import { Findings } from "./Findings";
import { lapse } from "./model";
import { Thumb } from "../../parts/Thumb";

interface Props {
  g: Schemas["GateAnswer"];
  r: Schemas["Release"];
  mine: boolean;
}

/** Released: take-off alone, with what was signed in sight. */
export function Released({ g, r, mine }: Props) {
  useQuiet(mine);
  const z = useZone();
  const may = useMay();
  const end = lapse(r.until, useNow());
  const over = end.state === "over";
  const { up } = useLink();
  const takeOff = useTakeOff(g, r);
  const withdraw = useWithdrawRelease(r.id);
  const [gone, setGone] = useState<number>();
  const flight = useOwnFlights().find((p) => p.body.release_id === r.id);
  useEffect(() => warm("fly"), []); // the next press opens it
  useEffect(() => clearDraft(`gate-${g.aircraft.id}`), [g.aircraft.id]); // the next flight is chosen anew
  return (
    <>
      <Sheet
        title={mine ? "Released by you" : `Released by ${r.pilot}`}
        aside={
          <span className="soft fig">
            {z.time(r.at)}, holds until {z.time(r.until)}
          </span>
        }
      >
        <p>
          <VerdictMark verdict={r.verdict} /> {r.purpose}
        </p>
        {g.output.first_leg && <p className="fs-1 fw-semibold lh-sm">{g.output.first_leg}</p>}
        {withdraw.error && <Problem error={withdraw.error} />}
        {mine && (
          <p>
            Area clear, everybody briefed, stand behind the aircraft, at least 10 m away, beside something to
            get behind. Announce the take-off aloud; the time runs from lift-off.
          </p>
        )}
        {!mine && may() && (
          <Button variant="outline-primary" className="w-100" onClick={() => withdraw.mutate()}>
            Withdraw the release
          </Button>
        )}
        {g.output.verdict === "stop" && (
          <div className="mt-3">
            <p className="fw-bold">What has come up since stands against it:</p>
            <Findings g={g} settled />
          </div>
        )}
      </Sheet>
      {flight && gone === undefined && (
        <Link className="btn btn-primary btn-big w-100 mt-3" to={`/fly/${flight.thing}`}>
          Go to the flight: it waits to be handed over
        </Link>
      )}
      {mine && (!flight || gone !== undefined) && (
        <Thumb>
          {end.state === "soon" && (
            <Notice role="status" className="py-1 fw-semibold">
              <div>
                The release lapses in {counted(end.minutes, "minute")}. Then the wind is measured again, and
                the gate asked and signed anew.
              </div>
            </Notice>
          )}
          {over && (
            <Notice role="alert" className="py-1 fw-semibold">
              <div>The release no longer holds. Withdraw it and ask the gate again.</div>
            </Notice>
          )}
          {!up && !over && (
            <Notice role="status" className="py-1 fw-semibold">
              <div>
                No network: the gate cannot be asked once more at take-off. Lift off only if nothing has
                changed.
              </div>
            </Notice>
          )}
          <Button
            className="btn-land"
            disabled={over || gone !== undefined}
            onClick={() => {
              const at = serverNow();
              setGone(at);
              takeOff(at);
              setTimeout(() => void openSound(), 250); // after the time runs: a device may take long to open its sound
            }}
          >
            {gone === undefined ? "Take off" : `Took off ${z.clock(gone)}`}
          </Button>
          <Button variant="outline-primary" disabled={gone !== undefined} onClick={() => withdraw.mutate()}>
            {withdraw.isPending ? "Withdrawing…" : "Withdraw the release"}
          </Button>
        </Thumb>
      )}
    </>
  );
}

import type { ReactNode } from "react";
import { Link } from "react-router";
import { VerdictMark } from "../parts/Flag";
import { useZone } from "../parts/time";
import { Found } from "./Found";
import { LeftOut } from "./LeftOut";
import type { RunSeen } from "./model";

/** A walk that is over: what it came to, and where it goes on. */
export function Ended({ w, waits, above }: { w: RunSeen; waits: boolean; above: ReactNode }) {
  const z = useZone();
  if (w.abandoned) return <p>This walk was given up; it is no check. What was found on it stays open.</p>;
  return (
    <div>
      {above}
      <h2>{waits ? "Kept on this device, not on record yet" : "On record"}</h2>
      <VerdictMark verdict={w.verdict} big />
      <p className="mt-2">
        Completed by {w.completed_by}, {w.completed_at && z.both(w.completed_at)}, checklist version{" "}
        {w.checklist_version}.
      </p>
      {waits && <p>It is handed over as soon as the server answers; the gate knows it from then on.</p>}
      {w.pace_said && (
        <p>
          <VerdictMark verdict="watch" /> {w.pace_said} It stands in the record, and the gate says it.
        </p>
      )}
      {w.drill_right !== undefined && (
        <p>
          The picture showed: {w.drill_shows} {w.drill_right ? "You saw it." : "You answered otherwise."} Only
          you are told; the crew sees a rate.
        </p>
      )}
      <Found w={w} />
      <div className="d-flex flex-wrap gap-2">
        <Link
          className="btn btn-primary btn-big"
          to={`/gate/${w.aircraft_id}?packs=${w.packs.map((p) => p.id).join(",")}`}
        >
          Ask the gate
        </Link>
        <Link className="btn btn-outline-primary btn-big" to={`/fleet/${w.aircraft_id}`}>
          {w.aircraft}
        </Link>
      </div>
      <LeftOut w={w} />
    </div>
  );
}

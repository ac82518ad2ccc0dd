import { ReachPlan } from "./ReachPlan";
import { Hoist } from "../parts/Hoist";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { reachOf } from "./model";

/** How the passes stand over the site, and how far it comes: as the gate judges them. */
export function WayPanel({ p }: { p: Plan }) {
  const u = useUnits();
  if (!p.way) return null;
  const { findings, relief, reach, homes, far_m } = p.way;
  const say = (m: number) => u.show("length", m);
  const at = reachOf(p.start, reach);
  return (
    <Sheet title="The way">
      {findings.length === 0 ? (
        <p>Ways out, passes and ways home are free of all that is charted.</p>
      ) : (
        <Hoist
          findings={findings}
          aircraft={p.aircraft_id}
          back={{ to: `/jobs/${p.job_id}/spray/${p.aircraft_id}`, name: "the spray plan" }}
        />
      )}
      {relief && (
        <p>
          Ground under the passes {say(relief.low_m)} to {say(relief.high_m)}
          {relief.steepest > 0.005 &&
            `; the steepest is ${relief.on}: ${Math.round(relief.steepest * 100)} %, ${u.show("speed", relief.steepest * p.settings.speed_ms)} up or down`}
          .
        </p>
      )}
      {at && (
        <div className="d-flex flex-wrap gap-3 align-items-center">
          <ReachPlan
            start={p.start}
            outline={p.outline}
            reach={reach}
            homes={homes}
            farM={far_m}
            from={p.wind_from_deg}
            say={say}
            label={`Out and back from ${say(at.least)} to ${say(at.most)}; the farthest pass is ${say(far_m)} away`}
          />
          <p className="soft mb-0">
            With full packs it comes out and back from {say(at.least)} to {say(at.most)} in this wind, by
            direction; the farthest pass is {say(far_m)} away
            {far_m > at.least &&
              ". If it is out there and the packs are under the ring's level, land where it is free"}
            . The rings say what the packs must show there to come home against the wind.
          </p>
        </div>
      )}
    </Sheet>
  );
}

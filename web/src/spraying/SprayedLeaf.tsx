import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { newId } from "../api/client";
import { useMay } from "../parts/session";
import { FieldPlan } from "./FieldPlan";
import { counted } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Empty } from "../parts/states";
import { useZone } from "../parts/time";
import type { Plan } from "./api";
import { isDone, partsOf, partsUpTo } from "./model";
import { usePlanPress } from "./send";

/** What is sprayed: a whole flight with one press, or up to where it was broken off; and the way back. */
export function SprayedLeaf({ p }: { p: Plan }) {
  const z = useZone();
  const may = useMay()("pilot", "crew");
  const press = usePlanPress(p.job_id, p.aircraft_id);
  const [leg, setLeg] = useState<number>();
  const [share, setShare] = useState(0.5);
  const next = p.sorties[0];
  const begin = next?.legs.findIndex((l) => l.pass === leg) ?? -1;
  const last = p.done.at(-1);
  const latest = last ? p.done.filter((d) => d.at === last.at) : [];
  if (p.version === 0) return <Empty>Keep the plan first; what is sprayed is counted by its passes.</Empty>;
  return (
    <div className="vstack gap-3">
      <FieldPlan
        plan={p}
        chosen={leg === undefined ? [] : [leg]}
        onPass={may ? (i) => setLeg(i === leg || isDone(p, i) ? undefined : i) : undefined}
        label="Passes; choose the one in which a flight was broken off"
      />
      {next ? (
        <Sheet title="The flight just flown">
          <p>
            {counted(next.legs.length, "pass", "passes")}, {next.ha.toFixed(2)} ha, {next.litres.toFixed(1)}{" "}
            {p.wish.granules ? "kg" : "L"}. Press a pass on the picture if it was broken off there.
          </p>
          {leg !== undefined && begin >= 0 && (
            <label className="d-block mb-2">
              Broken off in pass {leg + 1}, after {Math.round(share * 100)} % of it
              <Form.Range
                className="tap"
                min={0}
                max={1}
                step={0.05}
                value={share}
                onChange={(e) => setShare(Number(e.target.value))}
              />
            </label>
          )}
          {leg !== undefined && begin < 0 && (
            <p className="judged watch">Pass {leg + 1} does not belong to this flight.</p>
          )}
          {may && (
            <Button
              className="btn-big"
              disabled={leg !== undefined && begin < 0}
              onClick={() => {
                press("spray.done", {
                  version: p.version,
                  parts: begin >= 0 ? partsUpTo(next, begin, share, newId) : partsOf(next, newId),
                });
                setLeg(undefined);
              }}
            >
              {begin >= 0 ? "Sprayed up to there" : "All of it is sprayed"}
            </Button>
          )}
        </Sheet>
      ) : (
        <Sheet>All of this field is sprayed.</Sheet>
      )}
      {latest.length > 0 && (
        <Sheet title="On record">
          <p className="mb-2">
            {p.done_ha.toFixed(2)} ha in {counted(p.done.length, "part")}; the last {z.both(last!.at)} by{" "}
            {last!.by}.
          </p>
          {may && (
            <Button
              variant="outline-primary"
              onClick={() => press("spray.back", { ids: latest.map((d) => d.id) })}
            >
              Take the last back: {counted(latest.length, "part")}
            </Button>
          )}
        </Sheet>
      )}
    </div>
  );
}

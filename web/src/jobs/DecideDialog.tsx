import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField, SelectField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { decisionWords } from "../parts/Hoist";
import { Problem } from "../parts/states";
import { decide, useTakeOffPlaces } from "./api";

export interface Deciding {
  kind: Schemas["DecisionKind"];
  finding: Schemas["Finding"];
  aircraft: string;
}

const effects: Record<Schemas["DecisionKind"], string> = {
  "by-hand":
    "The finding stays in sight as Watch, with your name and reason. No automatic start: fly to the start of the route by hand, with a second pair of eyes on the wires.",
  "hold-and-look":
    "The finding stays in sight as Watch, with your name and reason. Hold at the start of the route and look with the camera before automatic flight begins.",
  "way-round": "The proposed way round is flown before the route, and judged like it.",
  "other-place": "The job takes off from that place; everything is judged again from there.",
  "set-return":
    "The height worked out is put down as set in the aircraft. Set it there first, and read it back.",
  "level-ground":
    "The finding stays in sight as Watch, with your name and reason. The ground under route and way home is then taken as level.",
};

/** Puts a decision about how an aircraft of a job is flown on record, with its reason. */
export function DecideDialog({ job, d, onClose }: { job: Schemas["Job"]; d: Deciding; onClose: () => void }) {
  const qc = useQueryClient();
  const [id] = useState(newId);
  const places = useTakeOffPlaces(job.site_id, d.kind === "other-place");
  const f = useDraftForm(`decide-${job.id}-${d.aircraft}-${d.kind}`, { reason: "", place: "" });
  const send = f.submit(async (v) => {
    if (d.kind === "other-place" && !v.place) return f.setError("place", { message: "Choose the place." });
    await decide(qc, job.id, {
      id,
      aircraft_id: d.aircraft,
      kind: d.kind,
      reason: v.reason,
      ...(v.place ? { place_id: v.place } : {}),
    });
    onClose();
  });
  return (
    <Dialog title={decisionWords[d.kind]} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>{d.finding.sentence}</p>
        <p className="soft">{effects[d.kind]} It lapses when the flight or what stands there changes.</p>
        {d.kind === "other-place" && (
          <SelectField label="Take-off place" {...f.register("place")} wrong={f.wrong("place")}>
            <option value="">Choose one</option>
            {places.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </SelectField>
        )}
        <AreaField
          label="Why: what was looked at, and what makes it safe"
          maxLength={400}
          {...f.register("reason")}
          wrong={f.wrong("reason")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Put it on record
        </Button>
      </form>
    </Dialog>
  );
}

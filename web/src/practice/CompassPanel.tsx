import { zodResolver } from "@hookform/resolvers/zod";
import { useDraftForm } from "../parts/form";
import { calibrationForm } from "./model";
import { useSites } from "../api/queries";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { NumberField, SelectField, TextField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useCalibrate } from "./api";

/** When and where the compass was calibrated last, and the press that puts one on record. */
export function CompassPanel({ d }: { d: Schemas["AircraftDetail"] }) {
  const may = useMay();
  const z = useZone();
  const [open, setOpen] = useState(false);
  const c = d.compass;
  return (
    <div className="mt-3">
      <Sheet
        title="Compass"
        aside={
          may("pilot", "technician") && (
            <Button variant="outline-primary" size="sm" onClick={() => setOpen(true)}>
              Calibrated now
            </Button>
          )
        }
      >
        {c ? (
          <p className="m-0">
            Calibrated {z.both(c.at)} by {c.by}
            {c.site && ` at ${c.site}`}
            {c.metal_m != null && `, nearest metal ${Math.round(c.metal_m)} m off`}. {c.note}
            {c.since && ` Since then work was done that disturbs it: ${c.since}.`}
          </p>
        ) : (
          <p className="m-0">No calibration is on record.</p>
        )}
      </Sheet>
      {open && <CalibrateForm d={d} onClose={() => setOpen(false)} />}
    </div>
  );
}

function CalibrateForm({ d, onClose }: { d: Schemas["AircraftDetail"]; onClose: () => void }) {
  const sites = useSites();
  const calibrate = useCalibrate(d.aircraft.id);
  const [id] = useState(newId);
  const f = useDraftForm(
    `compass-${d.aircraft.id}`,
    { site_id: "", metal_m: "", note: "" },
    [],
    zodResolver(calibrationForm),
  );
  const save = f.submit(async (v) => {
    await calibrate.mutateAsync({ id, ...v });
    onClose();
  });
  return (
    <Dialog open title={`Compass of ${d.aircraft.name}`} onClose={onClose}>
      <p>
        Away from iron, cars, rebar and the phone in the pocket, by as many people as its mass asks for. Then
        hold the heading against a known line.
      </p>
      <form onSubmit={save} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="Where" {...f.register("site_id")} wrong={f.wrong("site_id")}>
          <option value="">Somewhere that is no site on file</option>
          {(sites.data?.sites ?? []).map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <NumberField
          label="Nearest metal (car, fence, rebar), about"
          unit="m"
          {...f.register("metal_m")}
          wrong={f.wrong("metal_m")}
          hint="Under 15 m move further off: iron teaches it a wrong north."
        />
        <TextField label="Note" maxLength={300} {...f.register("note")} wrong={f.wrong("note")} />
        <Button type="submit" disabled={calibrate.isPending}>
          {calibrate.isPending ? "Saving…" : "Put on record"}
        </Button>
      </form>
    </Dialog>
  );
}

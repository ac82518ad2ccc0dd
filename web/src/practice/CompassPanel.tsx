import { useSites } from "../api/queries";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { NumberField, SelectField, TextField } from "../parts/Field";
import { parseInRange } from "../parts/number";
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
  const [site, setSite] = useState("");
  const [note, setNote] = useState("");
  const [metal, setMetal] = useState("");
  const far = parseInRange(metal, 0, 10_000, "m");
  const wrong = !far.ok && !far.empty ? far.sentence : undefined;
  const save = () =>
    wrong
      ? undefined
      : calibrate
          .mutateAsync({ id, site_id: site === "" ? null : site, metal_m: far.ok ? far.value : null, note })
          .then(onClose, () => undefined);
  return (
    <Dialog open title={`Compass of ${d.aircraft.name}`} onClose={onClose}>
      <p>
        Away from iron, cars, rebar and the phone in the pocket, by as many people as its mass asks for. Then
        hold the heading against a known line.
      </p>
      {calibrate.error && <Problem error={calibrate.error} />}
      <SelectField label="Where" value={site} onChange={(e) => setSite(e.target.value)}>
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
        value={metal}
        wrong={wrong}
        hint="Under 15 m move further off: iron teaches it a wrong north."
        onChange={(e) => setMetal(e.target.value)}
      />
      <TextField label="Note" value={note} maxLength={300} onChange={(e) => setNote(e.target.value)} />
      <Button disabled={calibrate.isPending} onClick={() => void save()}>
        {calibrate.isPending ? "Saving…" : "Put on record"}
      </Button>
    </Dialog>
  );
}

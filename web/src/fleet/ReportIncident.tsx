import { useReportIncident } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField, SelectField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

type Event = Schemas["Incident"]["event"];
const events: [Event, string][] = [
  ["hard-landing", "Hard landing, or it was dropped"],
  ["contact", "Contact with something hard"],
  ["water", "Water inside"],
  ["overheating", "Overheating"],
  ["chemical-spill", "Chemical spill"],
  ["transport-damage", "Damage in transport"],
  ["rebuilt", "It was built again: frame, arms or main electronics replaced"],
];

export interface ReportIncidentProps {
  open: boolean;
  onClose: () => void;
  d: Schemas["AircraftDetail"];
}

/** What happened outside a flight: it opens the tasks of the programme at once and grounds the aircraft. */
export function ReportIncident({ open, onClose, d }: ReportIncidentProps) {
  const reportIncident = useReportIncident();
  const [id, setId] = useState(newId);
  const blank = { event: "hard-landing" as Event, note: "" };
  const f = useDraftForm(`incident-${d.aircraft.id}`, blank);
  const send = f.submit(async (v) => {
    await reportIncident.mutateAsync({ id: d.aircraft.id, body: { ...v, id } });
    setId(newId());
    f.reset(blank);
    onClose();
  });
  return (
    <Dialog title={`Something happened to ${d.aircraft.name}`} open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="What" {...f.register("event")} wrong={f.wrong("event")}>
          {events.map(([k, words]) => (
            <option key={k} value={k}>
              {words}
            </option>
          ))}
        </SelectField>
        <AreaField
          label="How it happened"
          {...f.register("note")}
          wrong={f.wrong("note")}
          hint="The aircraft is grounded at once and the work it needs is opened in the workshop. In flight, use the buttons of the flight instead."
        />
        <Button type="submit" variant="danger" className="w-100" disabled={f.formState.isSubmitting}>
          Report it and ground the aircraft
        </Button>
      </form>
    </Dialog>
  );
}

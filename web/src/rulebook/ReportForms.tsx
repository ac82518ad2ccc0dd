import { useRaiseReport, useReportDone } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { MomentField } from "../parts/DateField";
import { AreaField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { instant, serverNow, useZone } from "../parts/time";

type Report = Schemas["Report"];

interface RaiseProps {
  /** What is known already, when a flight leads here. */
  aircraft: string | null;
  at: string | null;
  what: string;
  onDone: () => void;
}

/** Begins a report to the authority. */
export function Raise({ aircraft, at: happened, what, onDone }: RaiseProps) {
  const raiseReport = useRaiseReport();
  const z = useZone();
  const [id] = useState(newId);
  const f = useDraftForm(`report-new${happened ?? ""}`, {
    what,
    happened_at: z.local(happened ?? new Date(serverNow()).toISOString()),
  });
  const send = f.submit(async (v) => {
    const at = instant(v.happened_at, z.zone);
    if (!at) return f.setError("happened_at", { message: "Enter date and time." });
    await raiseReport.mutateAsync({ id, aircraft_id: aircraft, what: v.what, happened_at: at });
    onDone();
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <AreaField
        label="What happened, to whom or what"
        maxLength={500}
        {...f.register("what")}
        wrong={f.wrong("what")}
      />
      <MomentField label="When" zone={z.zone} {...f.register("happened_at")} wrong={f.wrong("happened_at")} />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Start the countdown
      </Button>
    </form>
  );
}

/** Puts a report on record as sent. */
export function DoneForm({ r, onDone }: { r: Report; onDone: () => void }) {
  const reportDone = useReportDone();
  const f = useDraftForm(`report-${r.id}`, { reference: "" });
  const send = f.submit(async (v) => {
    await reportDone.mutateAsync({ id: r.id, body: v });
    onDone();
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <p>{r.what}</p>
      <TextField
        label="Reference of the report"
        maxLength={120}
        {...f.register("reference")}
        wrong={f.wrong("reference")}
      />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Save
      </Button>
    </form>
  );
}

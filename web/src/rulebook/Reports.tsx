import { wrote } from "../api/touched";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Dialog } from "../parts/Dialog";
import { MomentField } from "../parts/DateField";
import { AreaField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem, QueryView } from "../parts/states";
import { instant, serverNow, useZone } from "../parts/time";
import { counted } from "../parts/number";

type Report = Schemas["Report"];

/** What the authority must be told, counted down. */
export function Reports() {
  const q = useQuery({ queryKey: keys.reports, queryFn: () => ask(api.GET("/reports")) });
  const may = useMay();
  const z = useZone();
  // A flight leads here with what happened to it.
  const [params, set] = useAddress();
  const [shown, setShown] = useState<Report | "new" | null>(null);
  const open = params.get("report") === "new" ? "new" : shown;
  const setOpen = (r: Report | "new" | null) => {
    setShown(r);
    if (r === null) set({ report: "", aircraft: "", at: "", what: "" });
  };
  return (
    <>
      {may("pilot", "crew", "technician") && (
        <p className="no-print">
          <Button onClick={() => setOpen("new")}>Something must be reported</Button>
        </p>
      )}
      <QueryView query={q} what="the reports">
        {(d) =>
          d.reports.length === 0 ? (
            <Empty>
              Nothing is due. {d.statement} ({d.citation})
            </Empty>
          ) : (
            <Sheet title="Reports">
              <ul className="plain">
                {d.reports.map((r) => (
                  <li key={r.id} className="d-flex gap-3 justify-content-between align-items-start">
                    <div>
                      <VerdictMark verdict={r.verdict} /> <strong>{r.what}</strong>
                      <div className="soft">
                        Happened {z.both(r.happened_at)}, noted by {r.raised_by}.{" "}
                        {r.reported_at
                          ? `Reported ${z.both(r.reported_at)}, ${r.reference}.`
                          : `Due by ${z.both(r.due_at)}: ${left(r.due_at)}.`}
                      </div>
                    </div>
                    {!r.reported_at && may("pilot") && (
                      <Button size="sm" variant="outline-primary" onClick={() => setOpen(r)}>
                        It is reported
                      </Button>
                    )}
                  </li>
                ))}
              </ul>
            </Sheet>
          )
        }
      </QueryView>
      <Dialog
        title={open === "new" ? "Something must be reported" : "It is reported"}
        open={open !== null}
        onClose={() => setOpen(null)}
      >
        {open === "new" && (
          <Raise
            aircraft={params.get("aircraft")}
            at={params.get("at")}
            what={params.get("what") ?? ""}
            onDone={() => setOpen(null)}
          />
        )}
        {open !== null && open !== "new" && <DoneForm r={open} onDone={() => setOpen(null)} />}
      </Dialog>
    </>
  );
}

function left(due: string): string {
  const days = (Date.parse(due) - serverNow()) / 86_400_000;
  return days < 0 ? "late" : `${counted(Math.floor(days), "day")} left`;
}

interface RaiseProps {
  /** What is known already, when a flight leads here. */
  aircraft: string | null;
  at: string | null;
  what: string;
  onDone: () => void;
}

function Raise({ aircraft, at: happened, what, onDone }: RaiseProps) {
  const qc = useQueryClient();
  const z = useZone();
  const [id] = useState(newId);
  const f = useDraftForm(`report-new${happened ?? ""}`, {
    what,
    happened_at: z.local(happened ?? new Date(serverNow()).toISOString()),
  });
  const send = f.submit(async (v) => {
    const at = instant(v.happened_at, z.zone);
    if (!at) return f.setError("happened_at", { message: "Enter date and time." });
    await ask(api.POST("/reports", { body: { id, aircraft_id: aircraft, what: v.what, happened_at: at } }));
    await wrote(qc, "incident_reports");
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

function DoneForm({ r, onDone }: { r: Report; onDone: () => void }) {
  const qc = useQueryClient();
  const f = useDraftForm(`report-${r.id}`, { reference: "" });
  const send = f.submit(async (v) => {
    await ask(api.POST("/reports/{id}/done", { params: { path: { id: r.id } }, body: v }));
    await wrote(qc, "incident_reports");
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

import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { usePages } from "../api/pages";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { More } from "../parts/More";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { serverNow, useZone } from "../parts/time";
import { counted } from "../parts/number";
import { Raise, DoneForm } from "./ReportForms";

type Report = Schemas["Report"];

/** What the authority must be told, counted down. */
export function Reports() {
  const q = usePages({
    key: keys.reports,
    read: (cursor) => ask(api.GET("/reports", { params: { query: { cursor } } })),
    rows: (p) => p.reports,
  });
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
        <p className="d-print-none">
          <Button onClick={() => setOpen("new")}>Something must be reported</Button>
        </p>
      )}
      <QueryView query={q} what="the reports">
        {(d) =>
          d.rows.length === 0 ? (
            <Empty>
              Nothing is due. {d.first.statement} ({d.first.citation})
            </Empty>
          ) : (
            <Sheet title="Reports">
              <ListGroup as="ul" variant="flush">
                {d.rows.map((r) => (
                  <ListGroup.Item
                    as="li"
                    key={r.id}
                    className="d-flex gap-3 justify-content-between align-items-start"
                  >
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
                  </ListGroup.Item>
                ))}
              </ListGroup>
              <More of={q} what="reports" />
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

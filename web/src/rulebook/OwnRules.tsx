import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Empty } from "../parts/states";
import { OwnForm } from "./OwnForm";

type Own = Schemas["LocalRule"];

/** Rules of the crew's own: each asks one question for every job. */
export function OwnRules({ b }: { b: Schemas["RuleBook"] }) {
  const may = useMay()();
  const [open, setOpen] = useState<Own | "new" | null>(null);
  return (
    <>
      {may && (
        <p className="d-print-none">
          <Button onClick={() => setOpen("new")}>Add a rule</Button>
        </p>
      )}
      {b.local.length === 0 ? (
        <Empty>
          The crew has no rules of its own. One is a statement and a question that is answered yes, for every
          job, when all is well; its breach is Watch or Stop in the gate.
        </Empty>
      ) : (
        <Sheet title="Own rules">
          <ListGroup as="ul" variant="flush">
            {b.local.map((r) => (
              <ListGroup.Item
                as="li"
                key={r.id}
                className="d-flex gap-3 justify-content-between align-items-start"
              >
                <div className="paper">
                  <strong>{r.statement}</strong>
                  <div className="soft">
                    Asked: {r.question} · {r.work.length ? r.work.join(", ") : "every kind of work"}
                    {r.citation && ` · ${r.citation}`} · by {r.changed_by}
                  </div>
                </div>
                <span className="d-flex gap-3 align-items-center">
                  <VerdictMark verdict={r.verdict} />
                  {may && (
                    <Button size="sm" variant="outline-primary" onClick={() => setOpen(r)}>
                      Change
                    </Button>
                  )}
                </span>
              </ListGroup.Item>
            ))}
          </ListGroup>
        </Sheet>
      )}
      <Dialog
        title={open === "new" ? "Add a rule" : "Change a rule"}
        open={open !== null}
        onClose={() => setOpen(null)}
      >
        {open !== null && (
          <OwnForm
            key={open === "new" ? "new" : `${open.id}-${open.version}`}
            r={open === "new" ? undefined : open}
            onDone={() => setOpen(null)}
          />
        )}
      </Dialog>
    </>
  );
}

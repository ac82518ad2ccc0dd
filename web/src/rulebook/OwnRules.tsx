import { wrote } from "../api/touched";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { workWords } from "../jobs/words";
import { Dialog } from "../parts/Dialog";
import { CheckField, SelectField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";

type Own = Schemas["LocalRule"];

/** Rules of the crew's own: each asks one question for every job. */
export function OwnRules({ b }: { b: Schemas["RuleBook"] }) {
  const may = useMay()();
  const [open, setOpen] = useState<Own | "new" | null>(null);
  return (
    <>
      {may && (
        <p className="no-print">
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
          <ul className="plain">
            {b.local.map((r) => (
              <li key={r.id} className="d-flex gap-3 justify-content-between align-items-start">
                <div className="paper">
                  <strong>{r.statement}</strong>
                  <div className="evidence">
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
              </li>
            ))}
          </ul>
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

function OwnForm({ r, onDone }: { r?: Own; onDone: () => void }) {
  const qc = useQueryClient();
  const [id] = useState(() => r?.id ?? newId());
  const [error, setError] = useState<unknown>();
  const f = useDraftForm(r ? `rule-${r.id}-${r.version}` : "rule-new", {
    statement: r?.statement ?? "",
    question: r?.question ?? "",
    citation: r?.citation ?? "",
    verdict: (r?.verdict === "watch" ? "watch" : "stop") as Schemas["Verdict"],
    work: Object.fromEntries((r?.work ?? []).map((w) => [w, true])) as Record<string, boolean>,
  });
  const v = f.watch();
  const send = f.submit(async (x) => {
    await ask(
      api.PUT("/rules/local/{id}", {
        params: { path: { id } },
        body: {
          statement: x.statement,
          question: x.question,
          citation: x.citation,
          verdict: x.verdict,
          work: Object.keys(x.work).filter((w) => x.work[w]) as "spraying"[],
          version: r?.version ?? 0,
        },
      }),
    );
    await wrote(qc, "local_rules");
    onDone();
  });
  const remove = async () => {
    try {
      await ask(api.DELETE("/rules/local/{id}", { params: { path: { id } } }));
      await wrote(qc, "local_rules");
      onDone();
    } catch (e) {
      setError(e);
    }
  };
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      {error !== undefined && <Problem error={error} />}
      <TextField
        label="What it demands"
        maxLength={500}
        {...f.register("statement")}
        wrong={f.wrong("statement")}
      />
      <TextField
        label="Question for every job"
        maxLength={300}
        placeholder="Is the gate closed?"
        hint="Answered yes when all is well."
        {...f.register("question")}
        wrong={f.wrong("question")}
      />
      <TextField
        label="Where it comes from"
        maxLength={200}
        placeholder="the crew's own rule"
        {...f.register("citation")}
        wrong={f.wrong("citation")}
      />
      <SelectField label="When it is broken" {...f.register("verdict")} wrong={f.wrong("verdict")}>
        <option value="stop">Stop</option>
        <option value="watch">Watch</option>
      </SelectField>
      <fieldset className="field">
        <legend className="fs-6 fw-semibold">For which work (none: all)</legend>
        {Object.entries(workWords).map(([k, w]) => (
          <CheckField
            key={k}
            label={w}
            checked={v.work[k] ?? false}
            onChange={(e) => f.setValue("work", { ...v.work, [k]: e.target.checked })}
          />
        ))}
      </fieldset>
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Save
      </Button>
      {r && (
        <Button variant="outline-primary" className="w-100 mt-2" onClick={() => void remove()}>
          Remove the rule
        </Button>
      )}
    </form>
  );
}

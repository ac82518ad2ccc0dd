import { useSaveLocalRule, useRemoveLocalRule } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { workWords } from "../jobs/words";
import { CheckField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

type Own = Schemas["LocalRule"];

/** A rule of the own: what is asked, and what the answer means. */
export function OwnForm({ r, onDone }: { r?: Own; onDone: () => void }) {
  const removeLocalRule = useRemoveLocalRule();
  const saveLocalRule = useSaveLocalRule();
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
    await saveLocalRule.mutateAsync({
      id,
      body: {
        statement: x.statement,
        question: x.question,
        citation: x.citation,
        verdict: x.verdict,
        work: Object.keys(x.work).filter((w) => x.work[w]) as "spraying"[],
        version: r?.version ?? 0,
      },
    });
    onDone();
  });
  const remove = async () => {
    try {
      await removeLocalRule.mutateAsync({ id });
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

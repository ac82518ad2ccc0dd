import { useSaveDocument, useRemoveDocument } from "./api";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { DateField } from "../parts/DateField";
import { AreaField, CheckField, SelectField, TextField, Wrong } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

type Paper = Schemas["Paper"];

interface PaperFormProps {
  p?: Paper;
  person?: string;
  kinds: Schemas["DocumentSort"][];
  people: Schemas["Person"][];
  onDone: () => void;
}

/** A document of a person or the crew, with when it ends. */
export function PaperForm({ p, person, kinds, people, onDone }: PaperFormProps) {
  const removeDocument = useRemoveDocument();
  const saveDocument = useSaveDocument();
  const [id] = useState(() => p?.id ?? newId());
  const rules = useQuery({ queryKey: keys.rules, queryFn: () => ask(api.GET("/rules")) });
  const f = useDraftForm(p ? `paper-${p.id}-${p.version}` : `paper-new-${person ?? ""}`, {
    kind: (p?.kind ?? (person ? "night-training" : "insurance")) as Paper["kind"],
    person_id: p?.person_id ?? person ?? "",
    number: p?.number ?? "",
    issued_on: p?.issued_on ?? "",
    expires_on: p?.expires_on ?? "",
    conditions: p?.conditions ?? "",
    rules: Object.fromEntries((p?.rules ?? []).map((r) => [r, true])) as Record<string, boolean>,
  });
  const v = f.watch();
  const personal = kinds.find((k) => k.id === v.kind)?.of_person ?? false;
  const names = v.kind === "waiver" || v.kind === "heavy-exemption";
  const pack = rules.data?.packs.find((x) => x.name === rules.data.chosen);
  const named = (pack?.rules ?? []).filter((r) => r.waivable);
  const send = f.submit(async (x) => {
    await saveDocument.mutateAsync({
      id,
      body: {
        kind: x.kind,
        person_id: personal ? x.person_id || null : null,
        number: x.number,
        issued_on: x.issued_on || null,
        expires_on: x.expires_on || null,
        conditions: x.conditions,
        rules: names ? named.map((r) => r.id).filter((r) => x.rules[r]) : [],
        version: p?.version ?? 0,
      },
    });
    onDone();
  });
  const [error, setError] = useState<unknown>();
  const remove = async () => {
    try {
      await removeDocument.mutateAsync({ id });
      onDone();
    } catch (e) {
      setError(e);
    }
  };
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      {error !== undefined && <Problem error={error} />}
      <SelectField label="Kind" {...f.register("kind")} wrong={f.wrong("kind")}>
        {kinds
          .filter((k) => !person || k.of_person)
          .map((k) => (
            <option key={k.id} value={k.id}>
              {k.name}
            </option>
          ))}
      </SelectField>
      {personal && !person && (
        <SelectField
          label="Whose"
          value={v.person_id}
          onChange={(e) => f.setValue("person_id", e.target.value)}
          wrong={f.wrong("person_id")}
        >
          <option value="">Choose one</option>
          {people
            .filter((x) => x.active)
            .map((x) => (
              <option key={x.id} value={x.id}>
                {x.name}
              </option>
            ))}
        </SelectField>
      )}
      <TextField label="Number" maxLength={80} {...f.register("number")} wrong={f.wrong("number")} />
      <div className="two" style={{ gap: "0 1rem" }}>
        <DateField label="Issued on" {...f.register("issued_on")} wrong={f.wrong("issued_on")} />
        <DateField
          label="Ends on"
          {...f.register("expires_on")}
          wrong={f.wrong("expires_on")}
          hint="Empty: it does not end."
        />
      </div>
      {names && (
        <fieldset className="field">
          <legend className="fs-6 fw-semibold">Rules it names</legend>
          <Wrong>{f.wrong("rules")}</Wrong>
          {named.map((r) => (
            <CheckField
              key={r.id}
              label={`${r.citation}: ${r.statement}`}
              checked={v.rules[r.id] ?? false}
              onChange={(e) => f.setValue("rules", { ...v.rules, [r.id]: e.target.checked })}
            />
          ))}
        </fieldset>
      )}
      <AreaField
        label="Conditions"
        maxLength={1000}
        {...f.register("conditions")}
        wrong={f.wrong("conditions")}
      />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Save
      </Button>
      {p && (
        <Button variant="outline-primary" className="w-100 mt-2" onClick={() => void remove()}>
          Take it off the file
        </Button>
      )}
    </form>
  );
}

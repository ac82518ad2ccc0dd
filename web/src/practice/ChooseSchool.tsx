import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useForm } from "react-hook-form";
import { NumberField, TextField } from "../parts/Field";
import { useSession } from "../parts/session";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";
import { useChoosePractice, type Practice } from "./api";
import { figures, formOf, schoolOf, toNumbers, unitOf } from "./model";

/** The schools of one question with the reason for the default, and the form of the chosen one. */
export function ChooseSchool({ p, onDone }: { p: Practice; onDone: () => void }) {
  const [id, setID] = useState(p.chosen.school);
  return (
    <>
      <p className="soft">{p.why}</p>
      <fieldset className="mb-2">
        <legend className="visually-hidden">{p.asks}</legend>
        {p.schools.map((s) => (
          <Form.Check
            key={s.id}
            type="radio"
            name={p.id}
            id={`${p.id}-${s.id}`}
            label={s.id === p.default ? `${s.says} (default)` : s.says}
            checked={s.id === id}
            onChange={() => setID(s.id)}
          />
        ))}
      </fieldset>
      <SchoolForm key={id} p={p} id={id} onDone={onDone} />
    </>
  );
}

function SchoolForm({ p, id, onDone }: { p: Practice; id: string; onDone: () => void }) {
  const u = useUnits();
  const { crew } = useSession();
  const [version] = useState(crew.version); // as it was when these choices were shown
  const school = schoolOf(p, id);
  const choose = useChoosePractice(p.id);
  const form = useForm({
    resolver: school && zodResolver(formOf(school, u)),
    defaultValues: { figures: school ? figures(p, school, u) : {}, why: "" },
  });
  if (!school) return null;
  const errors = form.formState.errors;
  const save = form.handleSubmit((v) =>
    choose
      .mutateAsync({ school: id, numbers: toNumbers(school, v.figures, u), why: v.why.trim(), version })
      .then(onDone, () => undefined),
  );
  return (
    <form onSubmit={(e) => void save(e)} noValidate>
      {choose.error && <Problem error={choose.error} />}
      {school.numbers.map((n) => (
        <NumberField
          key={n.key}
          label={n.label}
          unit={unitOf(n, u)}
          wrong={errors.figures?.[n.key]?.message}
          {...form.register(`figures.${n.key}`)}
        />
      ))}
      <TextField label="Why this crew keeps it so" wrong={errors.why?.message} {...form.register("why")} />
      <div className="d-flex gap-2">
        <Button type="submit" disabled={choose.isPending}>
          {choose.isPending ? "Saving…" : "Keep it so"}
        </Button>
        <Button variant="outline-secondary" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

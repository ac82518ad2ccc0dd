import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { useSession } from "../parts/session";
import { DateField } from "../parts/DateField";
import { CheckField, SelectField, TextField, Wrong } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { useAddPerson, useChangePerson, type Once, type Person } from "./api";
import { boxes, personForm, roles, stickModes, ticked } from "./model";
import { OnceCard } from "./OnceCard";
import { ResetPassword } from "./ResetPassword";

/** Adds a person or changes one. Nobody chooses another's secrets: a new person gets a one-time password. */
export function PersonForm({ p, onDone }: { p?: Person; onDone: () => void }) {
  const { person } = useSession();
  const [id] = useState(newId);
  const [once, setOnce] = useState<Once>();
  const add = useAddPerson();
  const change = useChangePerson(p?.id ?? id);
  const f = useDraftForm(
    p ? `person-${p.id}-${p.version}` : "person-new",
    {
      name: p?.name ?? "",
      login: p?.login ?? "",
      roles: boxes(p?.roles ?? []),
      certificate: p?.certificate ?? "",
      trained_on: p?.trained_on ?? "",
      stick_mode: p?.stick_mode ? String(p.stick_mode) : "",
      active: p?.active ?? true,
    },
    [],
    zodResolver(personForm(!p)),
  );
  const send = f.submit(async (v) => {
    const common = {
      name: v.name,
      roles: ticked(v.roles),
      certificate: v.certificate,
      trained_on: v.trained_on || null,
      stick_mode: v.stick_mode ? Number(v.stick_mode) : null,
    };
    if (p) {
      await change.mutateAsync({ ...common, version: p.version, active: v.active });
      onDone();
    } else setOnce((await add.mutateAsync({ ...common, id, login: v.login })).once);
  });
  if (once) return <OnceCard name={f.getValues("name")} once={once} onDone={onDone} />;
  return (
    <>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Name" {...f.register("name")} wrong={f.wrong("name")} />
        {!p && (
          <TextField
            label="Sign-in name"
            autoCapitalize="none"
            {...f.register("login")}
            wrong={f.wrong("login")}
          />
        )}
        <fieldset>
          <legend className="fs-6 fw-semibold">Roles</legend>
          {f.wrong("roles") && (
            <div className="field">
              <Wrong>{f.wrong("roles")}</Wrong>
            </div>
          )}
          {roles.map(([r, label]) => (
            <CheckField key={r} label={label} {...f.register(`roles.${r}`)} />
          ))}
        </fieldset>
        <TextField
          label="Remote pilot certificate number"
          {...f.register("certificate")}
          wrong={f.wrong("certificate")}
        />
        <DateField
          label="Last recurrent training"
          {...f.register("trained_on")}
          wrong={f.wrong("trained_on")}
          hint="Current through the end of the 24th month after it."
        />
        <SelectField label="Sticks" {...f.register("stick_mode")} wrong={f.wrong("stick_mode")}>
          <option value="">not known</option>
          {stickModes.map((m) => (
            <option key={m} value={m}>
              mode {m}
            </option>
          ))}
        </SelectField>
        {p && p.id !== person.id && <CheckField label="Belongs to the crew" {...f.register("active")} />}
        <Button type="submit" className="w-100" disabled={add.isPending || change.isPending}>
          Save
        </Button>
      </form>
      {p && p.id !== person.id && p.active && <ResetPassword p={p} />}
    </>
  );
}

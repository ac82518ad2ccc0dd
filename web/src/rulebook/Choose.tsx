import { zodResolver } from "@hookform/resolvers/zod";
import { useDraftForm } from "../parts/form";
import { rulesForm } from "./model";
import { useChooseRules } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { NumberField, SelectField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";

/** Chooses the rules that the crew flies under. */
export function Choose({ b }: { b: Schemas["RuleBook"] }) {
  const chooseRules = useChooseRules();
  const u = useUnits();
  const { crew } = useSession();
  const [version, setVersion] = useState(crew.version); // as it was when these choices were shown
  const [form] = useState(() => rulesForm(b, u));
  const f = useDraftForm(`rules-chosen-${version}`, form.shown, [], zodResolver(form.schema));
  const save = f.submit(async ({ pack, sight_m }) => {
    await chooseRules.mutateAsync({ pack: pack as "us-small", sight_m, version });
    setVersion((v) => v + 1);
  });
  return (
    <Sheet title="What this crew flies under">
      <form onSubmit={save} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <div className="d-flex gap-3 flex-wrap align-items-end">
          <SelectField label="Rule pack" {...f.register("pack")} wrong={f.wrong("pack")}>
            {b.packs.map((p) => (
              <option key={p.name} value={p.name}>
                {p.title}
                {p.outline ? " (outline)" : ""}
              </option>
            ))}
          </SelectField>
          <NumberField
            label="The crew sees an aircraft well up to"
            unit={u.label("length")}
            {...f.register("sight_m")}
            wrong={f.wrong("sight_m")}
          />
          <Button type="submit" className="mb-3" disabled={f.formState.isSubmitting}>
            Save
          </Button>
        </div>
      </form>
      <p className="soft mb-0">
        What is changed here is on record. Where crews differ stands under{" "}
        <Link to="/practices">Practices</Link>.
      </p>
    </Sheet>
  );
}

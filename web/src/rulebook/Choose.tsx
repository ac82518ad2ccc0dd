import { useChooseRules } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { NumberField, SelectField } from "../parts/Field";
import { parseInRange } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { shownQuantity } from "../parts/typed";
import { useUnits } from "../parts/units";

/** Chooses the rules that the crew flies under. */
export function Choose({ b }: { b: Schemas["RuleBook"] }) {
  const chooseRules = useChooseRules();
  const u = useUnits();
  const { crew } = useSession();
  const [version, setVersion] = useState(crew.version); // as it was when these choices were shown
  const [pack, setPack] = useState(b.chosen);
  const [sight, setSight] = useState(shownQuantity(u, "length", b.sight_m, 0));
  const [error, setError] = useState<unknown>();
  const n = parseInRange(sight, u.value("length", 50), u.value("length", 5000), u.label("length"));
  const save = async () => {
    if (!n.ok) return;
    setError(undefined);
    try {
      await chooseRules.mutateAsync({
        pack: pack as "us-small",
        sight_m: sight === shownQuantity(u, "length", b.sight_m, 0) ? b.sight_m : u.toBase("length", n.value),
        version,
      });
      setVersion((v) => v + 1);
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Sheet title="What this crew flies under">
      {error !== undefined && <Problem error={error} />}
      <div className="d-flex gap-3 flex-wrap align-items-end">
        <SelectField label="Rule pack" value={pack} onChange={(e) => setPack(e.target.value)}>
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
          value={sight}
          onChange={(e) => setSight(e.target.value)}
          wrong={n.ok ? undefined : n.empty ? "Enter how far." : n.sentence}
        />
        <Button className="mb-3" disabled={!n.ok} onClick={() => void save()}>
          Save
        </Button>
      </div>
      <p className="soft mb-0">
        What is changed here is on record. Where crews differ stands under{" "}
        <Link to="/practices">Practices</Link>.
      </p>
    </Sheet>
  );
}

import { tiles } from "../parts/columns";
import type { Schemas } from "../api/client";
import { CheckField, NumberField, SelectField } from "../parts/Field";
import { useUnits } from "../parts/units";
import type { ChosenCraft } from "./form";
import { datumWords, lostLinkWords, usualDatum } from "./model";

interface Props {
  a: Schemas["Aircraft"];
  work: Schemas["Job"]["work"];
  chosen: ChosenCraft;
  wrong: (field: keyof ChosenCraft) => string | undefined;
  onChange: (part: Partial<ChosenCraft>) => void;
}

/** How one aircraft of a job is flown: return height, route, mass, speed. */
export function CraftFields({ a, work, chosen, wrong, onChange }: Props) {
  const u = useUnits();
  return (
    <div className="border-bottom pt-1">
      <CheckField label={a.name} checked={chosen.on} onChange={(e) => onChange({ on: e.target.checked })} />
      {chosen.on && (
        <div className="tiles ps-4" style={tiles(190)}>
          <NumberField
            label={`Return height set in ${a.name}`}
            unit={u.label("length")}
            value={chosen.ret}
            wrong={wrong("ret")}
            onChange={(e) => onChange({ ret: e.target.value })}
            hint="Above take-off, as the aircraft shows it."
          />
          <SelectField
            label={`Link lost: ${a.name}`}
            value={chosen.lost}
            onChange={(e) => onChange({ lost: e.target.value as Schemas["LostLink"] })}
            hint="As set in the aircraft."
          >
            {Object.entries(lostLinkWords).map(([k, w]) => (
              <option key={k} value={k}>
                {w}
              </option>
            ))}
          </SelectField>
          <NumberField
            name="mass"
            label={`Take-off mass of ${a.name}`}
            unit={u.label("mass")}
            hint={
              work !== "spraying" && a.mass_kg != null
                ? `Empty: as weighed, ${u.show("mass", a.mass_kg)}.`
                : "With packs, payload and liquid."
            }
            value={chosen.mass}
            wrong={wrong("mass")}
            onChange={(e) => onChange({ mass: e.target.value })}
          />
          <NumberField
            label={`Height of the route of ${a.name}`}
            unit={u.label("length")}
            hint="Empty: as usual for the type."
            value={chosen.route}
            wrong={wrong("route")}
            onChange={(e) => onChange({ route: e.target.value })}
          />
          <SelectField
            label="That height is counted"
            value={chosen.datum}
            onChange={(e) => onChange({ datum: e.target.value as Schemas["Datum"] })}
          >
            <option value="">{`${datumWords[usualDatum(work)]}, as usual`}</option>
            {Object.entries(datumWords).map(([k, w]) => (
              <option key={k} value={k}>
                {w}
              </option>
            ))}
          </SelectField>
          <NumberField
            label={`Greatest speed of ${a.name}`}
            unit={u.label("speed")}
            value={chosen.speed}
            wrong={wrong("speed")}
            onChange={(e) => onChange({ speed: e.target.value })}
          />
          <CheckField
            label="Home point follows the pilot (boat, vehicle)"
            checked={chosen.follows}
            onChange={(e) => onChange({ follows: e.target.checked })}
          />
        </div>
      )}
    </div>
  );
}

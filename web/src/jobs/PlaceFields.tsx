import { SelectField } from "../parts/Field";
import { useTakeOffPlaces } from "./api";

type Which = "take_off" | "landing" | "second";

interface Props extends Record<Which, string> {
  site: string;
  onChange: (which: Which, id: string) => void;
}

/** From where it takes off, where it lands, and where else it can land. */
export function PlaceFields({ site, onChange, ...v }: Props) {
  const places = useTakeOffPlaces(site);
  if (places.length < 2) return null;
  const fields: [Which, string, string][] = [
    ["take_off", "Takes off from", `the main place, ${places[0]?.name}`],
    ["landing", "Lands at", "where it takes off"],
    ["second", "Second landing place", "none chosen"],
  ];
  return (
    <div className="two" style={{ gap: "0 1rem" }}>
      {fields.map(([k, label, none]) => (
        <SelectField key={k} label={label} value={v[k]} onChange={(e) => onChange(k, e.target.value)}>
          <option value="">{none}</option>
          {places.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </SelectField>
      ))}
    </div>
  );
}

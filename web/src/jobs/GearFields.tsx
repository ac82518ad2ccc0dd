import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { CheckField } from "../parts/Field";

interface Props {
  chosen: string[];
  onChange: (gear: string[]) => void;
}

/** Gear the job depends on beside what belongs to its aircraft: base station, tablet, charger. */
export function GearFields({ chosen, onChange }: Props) {
  const q = useQuery({ queryKey: keys.gear, queryFn: () => ask(api.GET("/gear")) });
  const free = (q.data?.gear ?? []).filter((g) => g.aircraft_id === null || chosen.includes(g.id));
  if (free.length === 0) return null;
  return (
    <fieldset className="field">
      <legend className="fs-6 fw-semibold">Gear this job depends on</legend>
      {free.map((g) => (
        <CheckField
          key={g.id}
          label={g.verdict === "clear" ? g.name : `${g.name}: ${g.sentence}`}
          checked={chosen.includes(g.id)}
          onChange={(e) => onChange(e.target.checked ? [...chosen, g.id] : chosen.filter((x) => x !== g.id))}
        />
      ))}
    </fieldset>
  );
}

import { useFetchWeather } from "./api";
import { SkyNow, SunLine } from "./SkyNow";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { SelectField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Hoist } from "../parts/Hoist";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { PasteReport } from "./PasteReport";
import { ReadByHand } from "./ReadByHand";
import { AircraftField } from "./WayHomePanel";

export type Ground = "water" | "open" | "crops" | "built";

const grounds: [Ground, string][] = [
  ["crops", "crops and hedges"],
  ["open", "open ground"],
  ["water", "water"],
  ["built", "buildings or wood"],
];

export interface WeatherPanelProps {
  site: string;
  sky?: Schemas["Sky"];
  error?: unknown;
  aircraft: string;
  work: string;
  ground: string;
  may: boolean;
  onChange: (changes: Record<string, string>) => void;
}

/** The air over the site, judged for an aircraft and a kind of work. */
export function WeatherPanel(p: WeatherPanelProps) {
  const [paste, setPaste] = useState(false);
  const [hand, setHand] = useState(false);
  const fetched = useFetchWeather(p.site, p.ground as Ground);
  const s = p.sky;
  return (
    <Sheet title="Weather" aside={s && <VerdictMark verdict={s.verdict} />}>
      <AircraftField value={p.aircraft} onChange={(v) => p.onChange({ aircraft: v })} />
      <div className="row g-2">
        <div className="col-6">
          <SelectField label="Work" value={p.work} onChange={(e) => p.onChange({ work: e.target.value })}>
            <option value="spraying">Spraying</option>
            <option value="mapping">Mapping</option>
            <option value="inspection">Inspection</option>
            <option value="practice">Practice</option>
          </SelectField>
        </div>
        <div className="col-6">
          <SelectField
            label="The wind blows over"
            value={p.ground}
            onChange={(e) => p.onChange({ ground: e.target.value })}
          >
            {grounds.map(([k, w]) => (
              <option key={k} value={k}>
                {w}
              </option>
            ))}
          </SelectField>
        </div>
      </div>
      {p.may && (
        <div className="d-flex gap-2 flex-wrap mb-2">
          <Button disabled={fetched.isPending} onClick={() => fetched.mutate()}>
            {fetched.isPending ? "Asking …" : "Take the report"}
          </Button>
          <Button variant="outline-primary" onClick={() => setPaste(true)}>
            Paste a report
          </Button>
          <Button variant="outline-primary" onClick={() => setHand(true)}>
            Read by hand
          </Button>
        </div>
      )}
      {fetched.error && <Problem error={fetched.error} />}
      {p.error !== undefined && p.error !== null && <Problem error={p.error} />}
      {s?.latest && <SkyNow sky={s} n={s.latest} />}
      {s && <Hoist findings={s.findings} aircraft={p.aircraft} />}
      {s?.sun && <SunLine day={s.sun} />}
      {s?.no_hours && <p className="soft mb-0">{s.no_hours}</p>}
      {s?.about.map((a) => (
        <p key={a} className="soft mb-0">
          {a}
        </p>
      ))}
      <PasteReport {...p} open={paste} onClose={() => setPaste(false)} />
      <ReadByHand {...p} open={hand} onClose={() => setHand(false)} />
    </Sheet>
  );
}

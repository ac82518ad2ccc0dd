import { useFleet } from "../api/queries";
import type { Schemas } from "../api/client";
import { NumberField, SelectField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Hoist } from "../parts/Hoist";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";

export interface WayHomePanelProps {
  w?: Schemas["WayHome"];
  error?: unknown;
  aircraft: string;
  setting: string;
  route: string;
  onChange: (changes: Record<string, string>) => void;
}

/** How high home: what decides, against what is set in the aircraft, and whether the way out is clear. */
export function WayHomePanel({ w, error, aircraft, setting, route, onChange }: WayHomePanelProps) {
  return (
    <Sheet title="Way home" aside={w && <VerdictMark verdict={w.verdict} />}>
      <AircraftField value={aircraft} onChange={(v) => onChange({ aircraft: v })} />
      <div className="row g-2">
        <div className="col-6">
          <NumberField
            label="Return height in it"
            unit="m"
            value={setting}
            hint="As read in the aircraft now"
            onChange={(e) => onChange({ setting: e.target.value })}
          />
        </div>
        <div className="col-6">
          <NumberField
            label="Route flown at"
            unit="m"
            value={route}
            hint={w ? `${counted[w.datum]}; empty: usual` : "Empty: usual"}
            onChange={(e) => onChange({ route: e.target.value })}
          />
        </div>
      </div>
      {error !== undefined && error !== null && <Problem error={error} />}
      {w && (
        <>
          <p className="mb-1">
            Set <strong className="fig">{Math.round(w.height_m)} m</strong> above take-off: {w.decides}{" "}
            reaches <span className="fig">{Math.round(w.need_m)} m</span>, and{" "}
            <span className="fig">{Math.round(w.margin_m)} m</span> are kept ({w.kept_m} m or {w.kept_percent}{" "}
            %, the larger, up to the next 5). Highest above the ground on the way:{" "}
            <span className="fig">{Math.round(w.max_agl_m)} m</span> of{" "}
            <span className="fig">{Math.round(w.ceiling_m)}</span>.
          </p>
          <Hoist findings={w.findings} aircraft={aircraft} />
          {w.way_round.length > 2 && (
            <p>
              Proposed way round, {w.way_round.length - 2} dog-leg{" "}
              {w.way_round.length === 3 ? "place" : "places"}, dotted on the map:{" "}
              <span className="fig">
                {w.way_round
                  .slice(1, -1)
                  .map((p) => `${p.lat.toFixed(6)}, ${p.lon.toFixed(6)}`)
                  .join("; ")}
              </span>
            </p>
          )}
          {w.no_way && <p>No way round: {w.no_way}.</p>}
          {w.landing && (
            <p className="mb-1">
              <VerdictMark verdict={w.landing.ok ? "clear" : "stop"} /> {w.landing.reason}
            </p>
          )}
          {w.home_speed_ms != null && (
            <p className="mb-1">
              From the farthest place, <span className="fig">{Math.round(w.far_m)} m</span>, it comes home in
              the wind of the latest report in{" "}
              <span className="fig">{Math.round(w.far_m / w.home_speed_ms)} s</span> at{" "}
              <span className="fig">{w.home_speed_ms.toFixed(1)} m/s</span> over the ground, climb and descent
              not counted.
            </p>
          )}
          <p className="soft mb-0">
            {!w.stand
              ? "Where the crew stands follows from the wind; none is on file. "
              : `Stand behind the aircraft, at least 10 m away; the map shows where for the wind of the latest report. ${
                  w.cover
                    ? `Cover: ${w.cover.name}, ${Math.round(w.cover.distance_m)} m behind.`
                    : "No cover is charted behind it: put the vehicle there."
                } `}
            The home point is taken as fixed at take-off; where it follows the pilot, the job says so. The
            maker&rsquo;s manual decides.
          </p>
        </>
      )}
    </Sheet>
  );
}

const counted: Record<Schemas["Datum"], string> = {
  "": "Above take-off",
  "take-off": "Above take-off",
  ground: "Above the ground, followed",
  sea: "Above the sea",
};

/** Which aircraft of the fleet is meant. */
export function AircraftField({ value, onChange }: { value: string; onChange: (v: string) => void }) {
  const q = useFleet();
  return (
    <SelectField label="Aircraft" value={value} onChange={(e) => onChange(e.target.value)}>
      <option value="">usual values, no aircraft</option>
      {q.data?.aircraft.map((a) => (
        <option key={a.aircraft.id} value={a.aircraft.id}>
          {a.aircraft.name}
        </option>
      ))}
    </SelectField>
  );
}

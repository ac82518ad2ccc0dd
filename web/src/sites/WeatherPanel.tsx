import { Explained } from "../parts/Explained";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { HourStrip } from "../drawings/HourStrip";
import { SelectField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Hoist } from "../parts/Hoist";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useAge, useNow, useZone } from "../parts/time";
import { windows } from "./model";
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
  const qc = useQueryClient();
  const z = useZone();
  const age = useAge();
  const [paste, setPaste] = useState(false);
  const [hand, setHand] = useState(false);
  const [error, setError] = useState<unknown>();
  const s = p.sky;
  const fetch = async () => {
    setError(undefined);
    try {
      await ask(
        api.POST("/sites/{id}/weather/fetch", {
          params: { path: { id: p.site } },
          body: { id: newId(), ground: p.ground as Ground },
        }),
      );
      await qc.invalidateQueries({ queryKey: ["site"] });
    } catch (e) {
      setError(e);
    }
  };
  const n = s?.latest;
  const day = s?.sun;
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
          <Button onClick={() => void fetch()}>Take the report</Button>
          <Button variant="outline-primary" onClick={() => setPaste(true)}>
            Paste a report
          </Button>
          <Button variant="outline-primary" onClick={() => setHand(true)}>
            Read by hand
          </Button>
        </div>
      )}
      {error !== undefined && <Problem error={error} />}
      {p.error !== undefined && p.error !== null && <Problem error={p.error} />}
      {n && (
        <>
          <p className="soft mb-1">
            {n.air.source === "hand" ? "Read by hand" : "Report"}, {age(n.air.at)}, on file by {n.by}
            {n.air.raw && (
              <>
                : <span className="fig">{n.air.raw}</span>
              </>
            )}
          </p>
          {s?.late_at && (
            <p className="mb-1" role="status">
              What was entered last is of {z.both(s.late_at)}: it is older, kept, and not used.
            </p>
          )}
          <dl className="facts">
            <Fact name={`Wind at ${Math.round(n.height_m)} m`}>
              {n.wind_ms == null
                ? "not known"
                : `${n.wind_ms.toFixed(1)}, gusts ${n.gust_ms?.toFixed(1)} m/s${n.air.from_deg == null ? "" : ` from ${Math.round(n.air.from_deg)}°`}`}
            </Fact>
            <Fact name="Density altitude">{num(n.density_altitude_m, "m")}</Fact>
            <Fact name="Take-off mass today">{num(n.mass_limit_kg, "kg", 1)}</Fact>
            <Fact name="Under the cloud">
              {n.cloud_ceiling_m == null
                ? n.air.cloud_known
                  ? "no cloud"
                  : "not known"
                : `${Math.round(n.cloud_ceiling_m)} m above ground`}
            </Fact>
            {n.air.source !== "hand" && (
              <Fact name="Ceiling">
                {n.ceiling_ft == null
                  ? n.ceiling_known
                    ? "none"
                    : "not known"
                  : `${n.ceiling_ft} ft above the station`}
              </Fact>
            )}
            <Fact name="Delta T">{num(n.delta_t, "°C", 1)}</Fact>
            <Fact name="Humidity">{num(n.humidity_percent, "%")}</Fact>
          </dl>
          {n.wind_notes.map((w) => (
            <p key={w} className="soft mb-1">
              {w}
            </p>
          ))}
          {s && s.bad.length > 0 && (
            <p>
              Not read:{" "}
              {s.bad.map((b) => (
                <span key={b.group}>
                  <span className="fig">{b.group}</span> ({b.why}){" "}
                </span>
              ))}
            </p>
          )}
        </>
      )}
      {s && <Hoist findings={s.findings} aircraft={p.aircraft} />}
      {day && (
        <p className="mb-1">
          Sun: rise <span className="fig">{day.rise ? z.time(day.rise) : day.kind}</span>, set{" "}
          <span className="fig">{day.set ? z.time(day.set) : day.kind}</span>; civil twilight{" "}
          <span className="fig">
            {day.dawn ? z.time(day.dawn) : "none"}–{day.dusk ? z.time(day.dusk) : "none"}
          </span>
          .
        </p>
      )}
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

/** The hours to come, as they are forecast. */
export function Hours({ sky, limit }: { sky: Schemas["Sky"]; limit?: number }) {
  const z = useZone();
  const now = useNow();
  if (sky.hours.length === 0) return null;
  const good = windows(sky.hours);
  return (
    <Sheet title="The hours to come">
      <HourStrip hours={sky.hours} clock={z.time} now={now} limit={limit} />
      <p className="mb-0">
        {good.length === 0
          ? "No hour without a Stop is in sight."
          : `Without a Stop: ${good.map(([a, b]) => `${z.time(a)}–${z.time(b)}`).join(", ")}.`}{" "}
        <span className="soft">A forecast is a plan; what is measured on the spot decides.</span>
      </p>
    </Sheet>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt>
        <Explained text={name} />
      </dt>
      <dd className="fig">{children}</dd>
    </div>
  );
}

const num = (v: number | null | undefined, unit: string, decimals = 0) =>
  v == null ? "not known" : `${v.toFixed(decimals)} ${unit}`;

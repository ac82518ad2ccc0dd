import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { HourStrip } from "../drawings/HourStrip";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, NumberField, SelectField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Hoist } from "../parts/Hoist";
import { parseInRange } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { serverNow, useAge, useNow, useZone } from "../parts/time";
import { AircraftField } from "./WayHomePanel";

type Ground = "water" | "open" | "crops" | "built";
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

function windows(hours: Schemas["SkyHour"][]): [string, string][] {
  const out: [string, string][] = [];
  let from: string | undefined;
  for (const h of hours) {
    if (h.verdict !== "stop") from ??= h.at;
    else if (from) {
      out.push([from, h.at]);
      from = undefined;
    }
  }
  const last = hours.at(-1);
  if (from && last) out.push([from, new Date(Date.parse(last.at) + 3_600_000).toISOString()]);
  return out;
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd className="fig">{children}</dd>
    </div>
  );
}

const num = (v: number | null | undefined, unit: string, decimals = 0) =>
  v == null ? "not known" : `${v.toFixed(decimals)} ${unit}`;

type DialogProps = WeatherPanelProps & { open: boolean; onClose: () => void };

function PasteReport({ site, ground, open, onClose }: DialogProps) {
  const qc = useQueryClient();
  const [text, setText] = useState("");
  const [station, setStation] = useState("");
  const [wrong, setWrong] = useState("");
  const [error, setError] = useState<unknown>();
  const save = async () => {
    const e = parseInRange(station, -500, 6000, "m");
    setWrong(!e.ok && !e.empty ? e.sentence : "");
    if (!e.ok && !e.empty) return;
    setError(undefined);
    try {
      await ask(
        api.POST("/sites/{id}/weather", {
          params: { path: { id: site } },
          body: {
            id: newId(),
            ground: ground as Ground,
            report: text,
            station_m: e.ok ? e.value : undefined,
          },
        }),
      );
      await qc.invalidateQueries({ queryKey: ["site"] });
      setText("");
      onClose();
    } catch (x) {
      setError(x);
    }
  };
  return (
    <Dialog title="Paste a report" open={open} onClose={onClose}>
      <AreaField
        label="METAR or SPECI"
        rows={3}
        value={text}
        hint="As it comes, from METAR or the four letters of the station to the end"
        onChange={(e) => setText(e.target.value)}
      />
      <NumberField
        label="Elevation of the station"
        unit="m"
        value={station}
        wrong={wrong}
        hint="The cloud base counts from there; empty: not known"
        onChange={(e) => setStation(e.target.value)}
      />
      {error !== undefined && <Problem error={error} />}
      <Button onClick={() => void save()} disabled={text.trim() === ""}>
        Put it on file
      </Button>
    </Dialog>
  );
}

const readings: [string, string, string, number, number][] = [
  ["wind_ms", "Wind, steady", "m/s", 0, 60],
  ["gust_ms", "Gusts", "m/s", 0, 90],
  ["from_deg", "From", "°", 0, 360],
  ["wind_height_m", "Measured at a height of", "m", 0.5, 500],
  ["temp_c", "Temperature", "°C", -60, 60],
  ["humidity_percent", "Humidity", "%", 1, 100],
  ["dew_c", "or dew point", "°C", -80, 60],
  ["qnh_hpa", "Pressure (QNH)", "hPa", 850, 1100],
  ["visibility_km", "Visibility", "km", 0, 100],
  ["cloud_base_ft", "Lowest cloud, above the site", "ft", 0, 60000],
  ["low_c", "Temperature at 2 m, for the inversion", "°C", -60, 60],
  ["high_c", "Temperature at 10 m", "°C", -60, 60],
];

/** What one sees in a wind of each class of the Beaufort scale. */
const byEye = [
  "smoke rises straight up",
  "smoke drifts, vanes do not turn",
  "felt on the face, leaves rustle",
  "leaves and twigs move all the time",
  "dust and paper rise, small branches move",
  "small trees in leaf sway",
  "large branches move, wires whistle",
  "whole trees move, walking is hard",
  "twigs break off",
  "slates come off roofs",
  "trees are uprooted",
  "damage all around",
  "nothing is left standing",
];

function ReadByHand({ site, ground, open, onClose }: DialogProps) {
  const qc = useQueryClient();
  const [text, setText] = useState<Record<string, string>>({ wind_height_m: "2" });
  const [cloudless, setCloudless] = useState(false);
  const [beaufort, setBeaufort] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const [error, setError] = useState<unknown>();
  const save = async () => {
    const bad: Record<string, string> = {};
    const v: Record<string, number | null> = {};
    for (const [k, , unit, min, max] of readings) {
      const e = parseInRange(text[k] ?? "", min, max, unit);
      if (!e.ok && !e.empty) bad[k] = e.sentence;
      v[k] = e.ok ? e.value : null;
    }
    if (v.wind_height_m == null) bad.wind_height_m ??= "Enter at what height the wind was measured.";
    setWrong(bad);
    if (Object.keys(bad).length > 0) return;
    setError(undefined);
    const { visibility_km, cloud_base_ft, wind_height_m, ...rest } = v;
    try {
      await ask(
        api.POST("/sites/{id}/weather", {
          params: { path: { id: site } },
          body: {
            id: newId(),
            ground: ground as Ground,
            hand: {
              ...rest,
              at: new Date(serverNow()).toISOString(),
              ground: ground as Ground,
              wind_height_m: wind_height_m ?? 2,
              visibility_m: visibility_km == null ? null : visibility_km * 1000,
              beaufort: beaufort === "" ? undefined : Number(beaufort),
              cloud_base_ft: cloudless || cloud_base_ft == null ? null : Math.round(cloud_base_ft),
              cloud_known: cloudless || cloud_base_ft != null,
              clear_sky: cloudless ? true : null,
            },
          },
        }),
      );
      await qc.invalidateQueries({ queryKey: ["site"] });
      onClose();
    } catch (x) {
      setError(x);
    }
  };
  return (
    <Dialog title="Read by hand" open={open} onClose={onClose}>
      <p className="soft">What was not measured stays empty: it is then not known, and says so.</p>
      <SelectField
        label="Wind by eye, where nothing measures it"
        value={beaufort}
        onChange={(e) => {
          setBeaufort(e.target.value);
          if (e.target.value !== "") setText({ ...text, wind_ms: "", gust_ms: "" });
        }}
      >
        <option value="">measured, or not known</option>
        {byEye.map((sign, i) => (
          <option key={i} value={i}>
            Beaufort {i}: {sign}
          </option>
        ))}
      </SelectField>
      <div className="row g-2">
        {readings.map(([k, label, unit]) => (
          <div key={k} className="col-6">
            <NumberField
              label={label}
              unit={unit}
              value={text[k] ?? ""}
              wrong={wrong[k]}
              disabled={beaufort !== "" && (k === "wind_ms" || k === "gust_ms" || k === "wind_height_m")}
              onChange={(e) => setText({ ...text, [k]: e.target.value })}
            />
          </div>
        ))}
      </div>
      <CheckField
        label="No cloud at all"
        checked={cloudless}
        onChange={(e) => setCloudless(e.target.checked)}
      />
      {error !== undefined && <Problem error={error} />}
      <Button onClick={() => void save()}>Put it on file</Button>
    </Dialog>
  );
}

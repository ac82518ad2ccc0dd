import { wrote } from "../api/touched";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { CheckField, AreaField, NumberField, SelectField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { parseInRange } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { HeightTool } from "./HeightTool";
import { type Feature, kindName, least, stands } from "./kinds";
import { readHeadings, readPlaces } from "./model";

type Ground = Schemas["GroundCheck"];
const found: [keyof Ground, string][] = [
  ["flat", "Flat and level"],
  ["firm", "Firm"],
  ["clear", "Clear all round"],
  ["no_plastic", "No loose plastic or film"],
  ["no_dust", "No dust"],
  ["no_people", "Away from roads and people"],
];

export interface FeatureFormProps {
  site: string;
  f: Feature;
  version: number;
  findings: Schemas["SiteJudgement"][];
  onDone: () => void;
  /** Metres kept clear around a kind of feature that has no buffer of its own. */
  usualBuffer: Record<string, number>;
  onRemoved: (id: string) => void;
}

/** What is known about one thing on the map. */
export function FeatureForm({
  site,
  f,
  version,
  findings,
  usualBuffer,
  onDone,
  onRemoved,
}: FeatureFormProps) {
  const qc = useQueryClient();
  const z = useZone();
  const [name, setName] = useState(f.name);
  const [note, setNote] = useState(f.note ?? "");
  const [what, setWhat] = useState(f.what ?? "");
  const [main, setMain] = useState(f.main ?? false);
  const [measured, setMeasured] = useState<string>(f.measured ?? "");
  const [nums, setNums] = useState<Record<string, string>>({
    height: text(f.height_m),
    sigma: text(f.sigma_m ?? 0),
    buffer: f.buffer_m ? text(f.buffer_m) : "",
    elevation: text(f.elevation),
  });
  const [free, setFree] = useState((f.free_deg ?? []).join(" "));
  const [ground, setGround] = useState<Ground | undefined>(f.ground);
  const drawn = f.places.map((p) => `${+p.lat.toFixed(7)}, ${+p.lon.toFixed(7)}`).join("\n");
  const [places, setPlaces] = useState(drawn);
  useEffect(() => setPlaces(drawn), [drawn]); // dragged on the map
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const [error, setError] = useState<unknown>();
  const [tool, setTool] = useState(false);
  const [busy, setBusy] = useState(false);
  const num = (k: string, v: string) => setNums({ ...nums, [k]: v });

  const read = (): Feature | undefined => {
    const bad: Record<string, string> = {};
    const number = (k: string, min: number, max: number) => {
      const p = parseInRange(nums[k] ?? "", min, max, "m");
      if (p.ok) return p.value;
      if (!p.empty) bad[k] = p.sentence;
      return undefined;
    };
    const ps = readPlaces(places);
    if (typeof ps === "string") bad.places = ps;
    else if (ps.length < least[f.shape]) bad.places = `At least ${least[f.shape]} are needed.`;
    const headings = readHeadings(free);
    if (!headings) bad.free = "Headings are 0 to 359, with spaces between.";
    const out: Feature = {
      ...f,
      name: name.trim(),
      note: note.trim(),
      what: what.trim(),
      main,
      measured: measured as Feature["measured"],
      height_m: stands(f.kind) ? (number("height", 0, 1000) ?? null) : undefined,
      sigma_m: number("sigma", 0, 200) ?? 0,
      buffer_m: number("buffer", 0, 1000) ?? 0,
      elevation: number("elevation", -500, 6000) ?? null,
      free_deg: headings ?? [],
      ground,
      places: typeof ps === "string" ? f.places : ps,
      heights: undefined,
    };
    setWrong(bad);
    return Object.keys(bad).length > 0 ? undefined : out;
  };
  const save = async () => {
    const body = read();
    if (!body) return;
    setBusy(true);
    setError(undefined);
    try {
      await ask(
        api.PUT("/sites/{id}/features/{feature}", {
          params: { path: { id: site, feature: f.id } },
          body: { feature: body, version },
        }),
      );
      await wrote(qc, "site_features");
      onDone();
    } catch (e) {
      setError(e);
    }
    setBusy(false);
  };
  const remove = async () => {
    setError(undefined);
    try {
      await ask(
        api.DELETE("/sites/{id}/features/{feature}", { params: { path: { id: site, feature: f.id } } }),
      );
      await wrote(qc, "site_features");
      onRemoved(f.id);
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Sheet title={version === 0 ? `New: ${kindName(f.kind)}` : f.name || kindName(f.kind)}>
      {findings.map((j, i) => (
        <p key={i} className="mb-1">
          <VerdictMark verdict={j.verdict} /> {j.sentence}
        </p>
      ))}
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <TextField label="Name" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
        {f.kind === "obstacle" && (
          <CheckField
            label="A structure: building, mast, tower (not a tree)"
            checked={what === "structure"}
            onChange={(e) => setWhat(e.target.checked ? "structure" : "")}
          />
        )}
        {stands(f.kind) && (
          <>
            <div className="row g-2">
              <div className="col-6">
                <NumberField
                  label="Height"
                  unit="m"
                  value={nums.height}
                  wrong={wrong.height}
                  hint="Empty: not known"
                  onChange={(e) => num("height", e.target.value)}
                />
              </div>
              <div className="col-6">
                <NumberField
                  label="Plus or minus"
                  unit="m"
                  value={nums.sigma}
                  wrong={wrong.sigma}
                  onChange={(e) => num("sigma", e.target.value)}
                />
              </div>
            </div>
            <div className="d-flex gap-2 align-items-end mb-2">
              <div style={{ flex: 1 }}>
                <SelectField label="Found by" value={measured} onChange={(e) => setMeasured(e.target.value)}>
                  <option value="">not said</option>
                  {["known", "clinometer", "two stations", "shadow", "map", "estimate", "flown"].map((w) => (
                    <option key={w}>{w}</option>
                  ))}
                </SelectField>
              </div>
              <Button variant="outline-primary" className="mb-3" onClick={() => setTool(true)}>
                Measure it
              </Button>
            </div>
            <NumberField
              label="Kept clear around it"
              unit="m"
              value={nums.buffer}
              wrong={wrong.buffer}
              hint={`Empty: ${usualBuffer[f.kind] ?? 0} m`}
              onChange={(e) => num("buffer", e.target.value)}
            />
            {f.kind === "wires" && (
              <p className="soft">
                Look from both ends, find the poles first, then the spans. Wires whose height is not known
                stop an automatic start.
              </p>
            )}
          </>
        )}
        {(f.kind === "sensitive" || f.kind === "interference") && (
          <TextField
            label={f.kind === "sensitive" ? "What: bees, houses, water, organic field, people" : "What"}
            value={what}
            maxLength={120}
            onChange={(e) => setWhat(e.target.value)}
          />
        )}
        {f.kind === "take-off" && (
          <>
            <CheckField label="The main place" checked={main} onChange={(e) => setMain(e.target.checked)} />
            <fieldset className="mb-2">
              <legend className="h3">Looked at on the ground</legend>
              {found.map(([k, words]) => (
                <div key={k} className="d-flex justify-content-between align-items-center gap-2 mb-1">
                  <span id={`g-${k}`}>{words}</span>
                  <span className="segments" role="group" aria-labelledby={`g-${k}`}>
                    {([true, false] as const).map((v) => (
                      <button
                        key={String(v)}
                        type="button"
                        aria-pressed={ground?.[k] === v}
                        onClick={() => setGround({ ...(ground ?? none), [k]: ground?.[k] === v ? null : v })}
                      >
                        {v ? "yes" : "no"}
                      </button>
                    ))}
                  </span>
                </div>
              ))}
            </fieldset>
            <TextField
              label="Headings free for climb-out and approach"
              hint="Degrees true, with spaces: 90 270. Empty: not looked at."
              value={free}
              wrong={wrong.free}
              onChange={(e) => setFree(e.target.value)}
            />
            <NumberField
              label="Elevation of the ground"
              unit="m"
              value={nums.elevation}
              wrong={wrong.elevation}
              hint="Empty: from the terrain, or the site's"
              onChange={(e) => num("elevation", e.target.value)}
            />
          </>
        )}
        <AreaField
          label={f.shape === "point" ? "Place" : "Places"}
          hint="Latitude, longitude; one place a line"
          rows={Math.min(6, places.split("\n").length + 1)}
          value={places}
          wrong={wrong.places}
          onChange={(e) => setPlaces(e.target.value)}
        />
        <AreaField label="Note" rows={2} value={note} onChange={(e) => setNote(e.target.value)} />
        {(f.heights ?? []).length > 0 && (
          <p className="soft">
            Before:{" "}
            {(f.heights ?? [])
              .map(
                (h) =>
                  `${h.m == null ? "not known" : `${h.m.toFixed(1)} ± ${h.sigma_m.toFixed(1)} m`}${h.measured ? ` by ${h.measured}` : ""} (${h.by}, ${z.date(h.at)})`,
              )
              .join("; ")}
          </p>
        )}
        {error !== undefined && <Problem error={error} />}
        <div className="d-flex gap-2 flex-wrap">
          <Button type="submit" disabled={busy}>
            Save
          </Button>
          <Button variant="outline-primary" onClick={onDone}>
            Close
          </Button>
          {version > 0 && (
            <Button variant="outline-danger" onClick={() => void remove()}>
              Take it off the map
            </Button>
          )}
        </div>
      </form>
      <HeightTool
        open={tool}
        onClose={() => setTool(false)}
        onTake={(m, sigma, how) => {
          setNums({ ...nums, height: m.toFixed(2), sigma: sigma.toFixed(2) });
          setMeasured(how);
          setTool(false);
        }}
      />
    </Sheet>
  );
}

const none: Ground = {
  flat: null,
  firm: null,
  clear: null,
  no_plastic: null,
  no_dust: null,
  no_people: null,
};
const text = (v: number | null | undefined) => (v == null ? "" : String(v));

import { wrote } from "../api/touched";
import { usePeople, useFleet, useSites } from "../api/queries";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { GearFields } from "./GearFields";
import { CraftFields, blankCraft, type ChosenCraft } from "./CraftFields";
import { PlaceFields } from "./PlaceFields";
import { MomentField } from "../parts/DateField";
import { NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { Loading, Problem } from "../parts/states";
import { instant, serverNow, useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { SiteChoice } from "./SiteChoice";
import { postWords, workWords } from "./words";

type Job = Schemas["Job"];

/** Plans a job or changes one: what, where, when, with which aircraft and whom. */
export function JobForm({ job, onSaved }: { job?: Job; onSaved: (id: string) => void }) {
  const qc = useQueryClient();
  const z = useZone();
  const u = useUnits();
  const { person } = useSession();
  const [id] = useState(() => job?.id ?? newId());
  const sites = useSites();
  const people = usePeople();
  const fleet = useFleet();
  const hour = new Date(Math.ceil(serverNow() / 3_600_000) * 3_600_000);
  const length = (m: number | null | undefined) =>
    m == null ? "" : String(Math.round(u.value("length", m) * 10) / 10);
  const speed = (v: number | null | undefined) =>
    v == null ? "" : String(Math.round(u.value("speed", v) * 10) / 10);
  const f = useDraftForm(job ? `job-${job.id}-${job.version}` : "job-new", {
    work: (job?.work ?? "inspection") as Job["work"],
    site_id: job?.site_id ?? "",
    aim: job?.aim ?? "",
    product: job?.product ?? "",
    from: z.local(job?.from ?? hour.toISOString()),
    to: z.local(job?.to ?? new Date(hour.getTime() + 4 * 3_600_000).toISOString()),
    sorties: job?.sorties ? String(job.sorties) : "",
    meeting: job?.meeting ?? "",
    channel: job?.channel ?? "",
    take_off: job?.take_off_id ?? "",
    landing: job?.landing_id ?? "",
    second: job?.second_id ?? "",
    gear: (job?.gear ?? []).map((g) => g.id),
    label_low: speed(job?.label.low_ms),
    label_high: speed(job?.label.high_ms),
    label_height: length(job?.label.height_m),
    aircraft: Object.fromEntries(
      (job?.aircraft ?? []).map((c) => [
        c.aircraft_id,
        {
          on: true,
          ret: length(c.return_m),
          route: length(c.route_m),
          speed: speed(c.speed_ms),
          follows: c.home_follows,
          lost: c.lost_link,
          datum: c.datum,
          mass: c.mass_kg == null ? "" : String(Math.round(u.value("mass", c.mass_kg) * 100) / 100),
        },
      ]),
    ) as Record<string, ChosenCraft>,
    people: Object.fromEntries(
      job
        ? job.people.map((p) => [p.person_id, p.post])
        : person.roles.includes("pilot")
          ? [[person.id, "rpic"]]
          : [],
    ) as Record<string, string>,
  });
  const v = f.watch();
  const number = (
    text: string,
    max: number,
    unit: "length" | "speed" | "mass",
    field: string,
    min = 0,
  ): number | null => {
    const p = parseInRange(text, u.value(unit, min), u.value(unit, max), u.label(unit));
    if (p.ok) return u.toBase(unit, p.value);
    if (p.empty) return null;
    f.setError(field as "aim", { message: p.sentence });
    throw new Stop();
  };
  const send = f.submit(async (x) => {
    const from = instant(x.from, z.zone);
    const to = instant(x.to, z.zone);
    if (!x.site_id) return f.setError("site_id", { message: "Choose the site." });
    if (!from) return f.setError("from", { message: "Enter date and time." });
    if (!to) return f.setError("to", { message: "Enter date and time." });
    const n = parseInRange(x.sorties, 1, 500, "flights");
    if (!n.ok && !n.empty) return f.setError("sorties", { message: n.sentence });
    let aircraft: Schemas["JobCraft"][];
    let label: Schemas["SprayLabel"];
    try {
      label = {
        low_ms: number(x.label_low, 20, "speed", "label_low"),
        high_ms: number(x.label_high, 30, "speed", "label_high"),
        height_m: number(x.label_height, 20, "length", "label_height"),
      };
      aircraft = Object.entries(x.aircraft)
        .filter(([, c]) => c?.on)
        .map(([aircraft_id, c]) => ({
          aircraft_id,
          return_m: number(c.ret, 500, "length", "aircraft"),
          route_m:
            c.datum === "sea"
              ? number(c.route, 7000, "length", "aircraft", -500)
              : number(c.route, 500, "length", "aircraft"),
          datum: c.datum,
          mass_kg: number(c.mass, 1000, "mass", "aircraft"),
          speed_ms: number(c.speed, 100, "speed", "aircraft"),
          home_follows: c.follows,
          lost_link: c.lost ?? "", // a draft from before has none
        }));
    } catch (e) {
      if (e instanceof Stop) return;
      throw e;
    }
    await ask(
      api.PUT("/jobs/{id}", {
        params: { path: { id } },
        body: {
          work: x.work,
          site_id: x.site_id,
          aim: x.aim,
          gear_ids: x.gear ?? [],
          product: x.work === "spraying" ? x.product : "",
          from,
          to,
          sorties: n.ok ? Math.round(n.value) : null,
          meeting: x.meeting,
          channel: x.channel,
          take_off_id: x.take_off || null,
          landing_id: x.landing || null,
          second_id: x.second || null,
          label: x.work === "spraying" ? label : {},
          aircraft,
          people: Object.entries(x.people)
            .filter(([, post]) => post)
            .map(([person_id, post]) => ({ person_id, post: post as "rpic" })),
          version: job?.version ?? 0,
        },
      }),
    );
    await wrote(qc, "jobs");
    onSaved(id);
  });
  const chosen = (a: string): ChosenCraft => ({ ...blankCraft, ...v.aircraft[a] });
  const setCraft = (a: string, part: Partial<ChosenCraft>) =>
    f.setValue("aircraft", { ...v.aircraft, [a]: { ...chosen(a), ...part } });
  const failed = [sites, people, fleet].find((q) => q.isError);
  if (failed) return <Problem error={failed.error} retry={() => void failed.refetch()} />;
  // All at once: a form that grows under the finger takes presses that were meant for something else.
  if (!sites.data || !people.data || !fleet.data) return <Loading what="sites, aircraft and people" />;
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <div className="two" style={{ gap: "0 1rem" }}>
        <SelectField label="Kind of work" {...f.register("work")} wrong={f.wrong("work")}>
          {Object.entries(workWords).map(([k, w]) => (
            <option key={k} value={k}>
              {w}
            </option>
          ))}
        </SelectField>
        <SiteChoice
          sites={sites.data.sites.filter((s) => v.work !== "practice" || s.practice || s.id === v.site_id)}
          value={v.site_id}
          onChange={(site) => f.setValue("site_id", site)}
          wrong={f.wrong("site_id")}
        />
      </div>
      <TextField label="Aim, in one line" maxLength={160} {...f.register("aim")} wrong={f.wrong("aim")} />
      {v.work === "spraying" && (
        <TextField
          label="Product"
          maxLength={200}
          {...f.register("product")}
          wrong={f.wrong("product")}
          hint="As its label names it. The label decides on rate, wind, buffer and protection."
        />
      )}
      {v.work === "spraying" && (
        <div className="two" style={{ gap: "0 1rem" }}>
          <NumberField
            label="Label: wind from"
            unit={u.label("speed")}
            placeholder="usual practice"
            {...f.register("label_low")}
            wrong={f.wrong("label_low")}
          />
          <NumberField
            label="Label: wind to"
            unit={u.label("speed")}
            placeholder="usual practice"
            {...f.register("label_high")}
            wrong={f.wrong("label_high")}
          />
          <NumberField
            label="Label: measured at"
            unit={u.label("length")}
            placeholder={`${Math.round(u.value("length", 2) * 10) / 10}`}
            {...f.register("label_height")}
            wrong={f.wrong("label_height")}
          />
        </div>
      )}
      <PlaceFields
        site={v.site_id}
        take_off={v.take_off}
        landing={v.landing}
        second={v.second}
        onChange={(k, value) => f.setValue(k, value)}
      />
      <div className="two" style={{ gap: "0 1rem" }}>
        <MomentField label="From" zone={z.zone} {...f.register("from")} wrong={f.wrong("from")} />
        <MomentField label="To" zone={z.zone} {...f.register("to")} wrong={f.wrong("to")} />
      </div>
      <fieldset className="field">
        <legend className="fs-6 fw-semibold">Aircraft</legend>
        {f.wrong("aircraft") && (
          <div className="wrong" role="alert">
            {f.wrong("aircraft")}
          </div>
        )}
        {fleet.data.aircraft
          .filter((a) => a.aircraft.active || chosen(a.aircraft.id).on)
          .map(({ aircraft: a }) => (
            <CraftFields
              key={a.id}
              a={a}
              work={v.work}
              chosen={chosen(a.id)}
              onChange={(part) => setCraft(a.id, part)}
            />
          ))}
      </fieldset>
      <GearFields chosen={v.gear ?? []} onChange={(gear) => f.setValue("gear", gear)} />
      <fieldset className="field">
        <legend className="fs-6 fw-semibold">People and their roles</legend>
        {f.wrong("people") && (
          <div className="wrong" role="alert">
            {f.wrong("people")}
          </div>
        )}
        {people.data.people
          .filter((p) => p.active && p.roles.some((r) => r !== "reader"))
          .map((p) => (
            <div key={p.id} className="posting">
              <label htmlFor={`post-${p.id}`}>{p.name}</label>
              <select
                id={`post-${p.id}`}
                className="form-select"
                value={v.people[p.id] ?? ""}
                onChange={(e) => f.setValue("people", { ...v.people, [p.id]: e.target.value })}
              >
                <option value="">not in this job</option>
                {Object.entries(postWords)
                  .filter(([k]) => k !== "rpic" || p.roles.includes("pilot"))
                  .map(([k, w]) => (
                    <option key={k} value={k}>
                      {w}
                    </option>
                  ))}
              </select>
            </div>
          ))}
      </fieldset>
      <div className="two" style={{ gap: "0 1rem" }}>
        <NumberField
          label="Flights with each aircraft"
          unit=""
          {...f.register("sorties")}
          wrong={f.wrong("sorties")}
          hint="Says how many packs to take."
        />
        <TextField
          label="How people speak"
          maxLength={200}
          placeholder="Radio channel 4"
          {...f.register("channel")}
          wrong={f.wrong("channel")}
        />
      </div>
      <TextField
        label="Meeting point in an emergency"
        maxLength={200}
        {...f.register("meeting")}
        wrong={f.wrong("meeting")}
      />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        {job ? "Save" : "Plan it"}
      </Button>
    </form>
  );
}

/** A field was wrong and says so; nothing is sent. */
class Stop extends Error {}

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useFleet, usePeople, useSites } from "../api/queries";
import { MomentField } from "../parts/DateField";
import { NumberField, SelectField, TextField, Wrong } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { useSession } from "../parts/session";
import { Loading, Problem } from "../parts/states";
import { serverNow, useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { useSaveJob } from "./api";
import { CraftFields } from "./CraftFields";
import { blankCraft, jobForm, jobTyped, type ChosenCraft } from "./form";
import { GearFields } from "./GearFields";
import { LabelFields } from "./LabelFields";
import { PeopleFields } from "./PeopleFields";
import { PlaceFields } from "./PlaceFields";
import { SiteChoice } from "./SiteChoice";
import { workWords } from "./words";

/** Plans a job or changes one: what, where, when, with which aircraft and whom. */
export function JobForm({ job, onSaved }: { job?: Schemas["Job"]; onSaved: (id: string) => void }) {
  const z = useZone();
  const u = useUnits();
  const { person } = useSession();
  const [id] = useState(() => job?.id ?? newId());
  const sites = useSites();
  const people = usePeople();
  const fleet = useFleet();
  const save = useSaveJob(id);
  const f = useDraftForm(
    job ? `job-${job.id}-${job.version}` : "job-new",
    jobTyped(job, u, z, serverNow(), person),
    [],
    zodResolver(jobForm(u, z, job)),
  );
  const v = f.watch();
  const send = f.submit(async (x) => {
    await save.mutateAsync({ ...x, version: job?.version ?? 0 });
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
      <div className="row row-cols-2 gx-3">
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
      {v.work === "spraying" && <LabelFields register={f.register} wrong={f.wrong} />}
      <PlaceFields
        site={v.site_id}
        take_off={v.take_off}
        landing={v.landing}
        second={v.second}
        onChange={(k, value) => f.setValue(k, value)}
      />
      <div className="row row-cols-2 gx-3">
        <MomentField label="From" zone={z.zone} {...f.register("from")} wrong={f.wrong("from")} />
        <MomentField label="To" zone={z.zone} {...f.register("to")} wrong={f.wrong("to")} />
      </div>
      <fieldset className="field">
        <legend className="fs-6 fw-semibold">Aircraft</legend>
        <Wrong>{f.wrong("aircraft")}</Wrong>
        {fleet.data.aircraft
          .filter((a) => a.aircraft.active || chosen(a.aircraft.id).on)
          .map(({ aircraft: a }) => (
            <CraftFields
              key={a.id}
              a={a}
              work={v.work}
              chosen={chosen(a.id)}
              wrong={(k) => f.wrong(`aircraft.${a.id}.${k}`)}
              onChange={(part) => setCraft(a.id, part)}
            />
          ))}
      </fieldset>
      <GearFields chosen={v.gear ?? []} onChange={(gear) => f.setValue("gear", gear)} />
      <PeopleFields
        people={people.data.people}
        posts={v.people}
        wrong={f.wrong("people")}
        onChange={(posts) => f.setValue("people", posts)}
      />
      <div className="row row-cols-2 gx-3">
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

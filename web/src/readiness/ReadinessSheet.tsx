import { wrote } from "../api/touched";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay, useSession } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { DateField } from "../parts/DateField";
import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { parseInRange, counted } from "../parts/number";
import { PinPad } from "../parts/PinPad";
import { Sheet } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { serverNow, useZone } from "../parts/time";

type Readiness = Schemas["Readiness"];

/** How far a person has come on each type, by logged flying by hand. */
export function ReadinessSheet({ person, name }: { person: string; name: string }) {
  const q = useQuery({
    queryKey: keys.readiness(person),
    queryFn: () => ask(api.GET("/people/{id}/readiness", { params: { path: { id: person } } })),
  });
  const may = useMay()("pilot");
  const [open, setOpen] = useState(false);
  return (
    <QueryView query={q} what="the practice">
      {(d) => {
        const begun = d.types.filter((t) => t.empty_packs + t.loaded_packs + t.landings > 0);
        return (
          <Sheet
            title="Ready for which type"
            aside={
              may && (
                <Button
                  size="sm"
                  variant="outline-primary"
                  className="no-print"
                  onClick={() => setOpen(true)}
                >
                  Log practice
                </Button>
              )
            }
          >
            <p className="soft">
              By hand before the first job on a type: {d.need_empty} packs empty, then for a sprayer{" "}
              {d.need_loaded} with a full tank without spraying, take-offs and landings, nose-in.
            </p>
            <ul className="plain">
              {begun.map((t) => (
                <li key={t.type_key}>
                  <VerdictMark verdict={t.open ? "clear" : "watch"} /> <strong>{t.type}</strong>{" "}
                  {t.open ? "open" : t.missing.join("; ")}
                  <Steps t={t} d={d} />
                </li>
              ))}
            </ul>
            {begun.length < d.types.length && (
              <p className="soft mt-2 mb-0">
                Not begun:{" "}
                {d.types
                  .filter((t) => !begun.includes(t))
                  .map((t) => t.type)
                  .join(", ")}
                .
              </p>
            )}
            <h3 className="mt-3">Logged practice</h3>
            {d.log.length === 0 && <p className="mb-0">None.</p>}
            <ul className="plain">
              {d.log.map((l) => (
                <li key={l.id}>
                  <span className="fig">{l.flown_on}</span>{" "}
                  {d.types.find((t) => t.type_key === l.type_key)?.type ?? l.type_key}, {l.phase}:{" "}
                  {counted(l.packs, "pack")}, {counted(l.landings, "landing")}
                  {l.nose_in && ", nose-in"}
                  <div className="soft">
                    signed by {l.signed_by}
                    {l.note && ` · ${l.note}`}
                  </div>
                </li>
              ))}
            </ul>
            <Dialog title={`Practice of ${name}`} open={open} onClose={() => setOpen(false)}>
              <PracticeForm person={person} d={d} onDone={() => setOpen(false)} />
            </Dialog>
          </Sheet>
        );
      }}
    </QueryView>
  );
}

/** The steps of the syllabus as boxes that fill. */
function Steps({ t, d }: { t: Schemas["TypeReadiness"]; d: Readiness }) {
  const row = (label: string, have: number, need: number) => (
    <span className="rungs" role="img" aria-label={`${label}: ${have} of ${need}`}>
      <span className="soft">{label}</span>
      {Array.from({ length: need }, (_, i) => (
        <i key={i} className={i < have ? "on" : ""} />
      ))}
    </span>
  );
  return (
    <div className="syllabus">
      {row("empty", t.empty_packs, d.need_empty)}
      {t.tank && row("loaded", t.loaded_packs, d.need_loaded)}
      {row("landings", t.landings, t.tank ? d.need_landings : Math.ceil(d.need_landings / 2))}
      {row("nose-in", t.nose_in ? 1 : 0, 1)}
    </div>
  );
}

function PracticeForm({ person, d, onDone }: { person: string; d: Readiness; onDone: () => void }) {
  const qc = useQueryClient();
  const z = useZone();
  const { person: me } = useSession();
  const [id] = useState(newId);
  const f = useDraftForm(
    `practice-${person}`,
    {
      type_key: d.types[0]?.type_key ?? "",
      phase: "empty" as "empty" | "loaded",
      packs: "1",
      landings: "",
      nose_in: false,
      flown_on: z.date(new Date(serverNow()).toISOString()),
      note: "",
      pin: "",
    },
    ["pin"],
  );
  const v = f.watch();
  const tank = d.types.find((t) => t.type_key === v.type_key)?.tank ?? false;
  const send = f.submit(async (x) => {
    const packs = parseInRange(x.packs, 0, 20, "packs");
    const landings = parseInRange(x.landings, 0, 100, "landings");
    if (!packs.ok && !packs.empty) return f.setError("packs", { message: packs.sentence });
    if (!landings.ok && !landings.empty) return f.setError("landings", { message: landings.sentence });
    await ask(
      api.POST("/people/{id}/readiness", {
        params: { path: { id: person } },
        body: {
          id,
          type_key: x.type_key,
          phase: tank ? x.phase : "empty",
          packs: packs.ok ? Math.round(packs.value) : 0,
          landings: landings.ok ? Math.round(landings.value) : 0,
          nose_in: x.nose_in,
          flown_on: x.flown_on,
          note: x.note,
          pin: x.pin,
        },
      }),
    );
    await wrote(qc, "practice");
    onDone();
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <div className="two" style={{ gap: "0 1rem" }}>
        <SelectField label="Type" {...f.register("type_key")} wrong={f.wrong("type_key")}>
          {d.types.map((t) => (
            <option key={t.type_key} value={t.type_key}>
              {t.type}
            </option>
          ))}
        </SelectField>
        <SelectField label="Flown" {...f.register("phase")} disabled={!tank} wrong={f.wrong("phase")}>
          <option value="empty">empty, by hand</option>
          <option value="loaded">full tank, not spraying, by hand</option>
        </SelectField>
        <NumberField label="Packs" unit="" {...f.register("packs")} wrong={f.wrong("packs")} />
        <NumberField
          label="Take-offs and landings"
          unit=""
          {...f.register("landings")}
          wrong={f.wrong("landings")}
        />
        <DateField label="On" {...f.register("flown_on")} wrong={f.wrong("flown_on")} />
        <CheckField label="Nose-in practised" {...f.register("nose_in")} />
      </div>
      <TextField label="Note" maxLength={500} {...f.register("note")} wrong={f.wrong("note")} />
      <PinPad
        value={v.pin}
        onChange={(pin) => f.setValue("pin", pin)}
        who={me.name}
        statement="I watched this practice and it went as logged."
        wrong={f.wrong("pin")}
      />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Sign and log
      </Button>
    </form>
  );
}

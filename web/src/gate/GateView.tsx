import { useQuery, useQueryClient, keepPreviousData } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, ask, newId, ProblemError, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay, useSession } from "../app/session";
import { PackChoice } from "../packs/PackChoice";
import { usePacks } from "../packs/PacksView";
import { SelectField, TextField } from "../parts/Field";
import { clearDraft, readDraft, writeDraft } from "../parts/drafts";
import { VerdictMark, words } from "../parts/Flag";
import { Hoist, Notices } from "../parts/Hoist";
import { PinPad } from "../parts/PinPad";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { serverNow, useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { heldWords } from "./rules";
import { blankWind, readWind, WindFields, type WindTyped } from "./WindFields";

interface Kept {
  /** The job the flight belongs to: "" and null while not chosen. */
  job: string | null;
  packs: string[] | null;
  wind: WindTyped;
  purpose: string;
}

/** May this aircraft fly now? The findings, what to do about each, and the pilot's release. */
export function GateView() {
  const { aircraft = "" } = useParams();
  const [params] = useSearchParams();
  const u = useUnits();
  const key = `gate-${aircraft}`;
  const [kept, setKept] = useState<Kept>(() => ({
    job: null,
    packs: params.get("packs")?.split(",").filter(Boolean) ?? null,
    purpose: "",
    ...readDraft<Kept>(key),
    ...(params.get("job") ? { job: params.get("job") } : {}),
    ...(params.get("packs") ? { packs: params.get("packs")!.split(",").filter(Boolean) } : {}),
    wind: { ...blankWind, ...readDraft<Kept>(key)?.wind },
  }));
  const change = (part: Partial<Kept>) => {
    const k = { ...kept, ...part };
    setKept(k);
    writeDraft(key, k);
  };
  const read = readWind(kept.wind, u);
  const question: Schemas["GateQuestion"] = {
    aircraft_id: aircraft,
    pack_ids: kept.packs ?? [],
    wind: read.wind ?? null,
    acceptance: params.get("acceptance"),
    job_id: kept.job || null,
  };
  const q = useQuery({
    queryKey: keys.gate(aircraft, question),
    queryFn: () => ask(api.POST("/gate", { body: question })),
    refetchInterval: 60_000,
    placeholderData: keepPreviousData,
  });
  // A job that was chosen elsewhere brings its aim along, once.
  const aim = q.data?.jobs.find((j) => j.id === kept.job)?.aim;
  const [aimed, setAimed] = useState(false);
  useEffect(() => {
    if (aimed || !aim) return;
    setAimed(true);
    setKept((k) => (k.purpose ? k : { ...k, purpose: aim.slice(0, 120) }));
  }, [aim, aimed]);
  const suggested = q.data?.suggested_packs;
  const unasked = kept.packs === null;
  const nearest = q.data?.jobs.find(
    (j) => Date.parse(j.from) <= serverNow() && serverNow() < Date.parse(j.to),
  );
  useEffect(() => {
    // The job whose window it is now is proposed once.
    if (kept.job === null && nearest)
      setKept((k) => ({ ...k, job: nearest.id, purpose: k.purpose || nearest.aim.slice(0, 120) }));
  }, [kept.job, nearest]);
  useEffect(() => {
    // The crew's last walk, or the fullest packs, are proposed once; the choice stays theirs.
    if (unasked && suggested?.length) setKept((k) => ({ ...k, packs: suggested }));
  }, [unasked, suggested]);
  return (
    <QueryView query={q} what="the gate">
      {(g) => (
        <Gate
          g={g}
          kept={kept}
          change={change}
          wrong={read.wrong}
          question={question}
          settled={!q.isPlaceholderData}
          onDone={() => clearDraft(key)}
        />
      )}
    </QueryView>
  );
}

interface GateProps {
  g: Schemas["GateAnswer"];
  kept: Kept;
  change: (part: Partial<Kept>) => void;
  wrong: Partial<Record<keyof WindTyped, string>>;
  question: Schemas["GateQuestion"];
  settled: boolean;
  onDone: () => void;
}

function Gate({ g, kept, change, wrong, question, settled, onDone }: GateProps) {
  const packs = usePacks();
  const session = useSession();
  const may = useMay();
  const u = useUnits();
  const windRef = useRef<HTMLDivElement>(null);
  const packRef = useRef<HTMLDivElement>(null);
  const jobRef = useRef<HTMLDivElement>(null);
  const z = useZone();
  const o = g.output;
  const mine = g.release?.pilot_id === session.person.id;
  const fit = (packs.data?.packs ?? []).filter(
    (p) =>
      p.fits.includes(g.type.profile.name) &&
      (p.state === "charged" || p.fitted_to === g.aircraft.name || (kept.packs ?? []).includes(p.id)),
  );
  const jump = (r: React.RefObject<HTMLDivElement | null>) => () => {
    r.current?.scrollIntoView({ block: "center" });
    r.current?.querySelector<HTMLElement>("input, button, select")?.focus();
  };
  return (
    <>
      <ViewHead title={`Gate: ${g.aircraft.name}`}>
        <span className="soft align-self-center">
          {g.type.profile.name} · {g.aircraft.registration || "not registered"}
        </span>
      </ViewHead>
      <div className="two wide-left">
        <div className="stack">
          <Sheet>
            <div
              className="d-flex justify-content-between align-items-center flex-wrap gap-2"
              aria-live="polite"
            >
              <VerdictMark verdict={o.verdict} big />
              <span className="soft">
                {settled ? `Rules: ${o.rules}` : "Asking again with what was chosen…"}
              </span>
            </div>
            <div aria-busy={!settled}>
              {o.findings.length === 0 ? (
                <p className="mt-2 mb-0">Nothing stands against this flight.</p>
              ) : (
                <div className="mt-2">
                  <Hoist
                    findings={o.findings}
                    aircraft={g.aircraft.id}
                    here={{
                      "enter-wind": jump(windRef),
                      jobs: jump(jobRef),
                      "choose-packs": jump(packRef),
                      release: mine ? jump(packRef) : undefined,
                    }}
                  />
                </div>
              )}
              <p className="soft mt-2 mb-0">
                Held and found in order: {o.checked.map((r) => heldWords[r]).join(", ") || "nothing yet"}.
              </p>
              <Notices notices={o.notices} />
            </div>
          </Sheet>
          {!g.release && may("pilot") && (
            <Sign g={g} kept={kept} change={change} question={question} settled={settled} />
          )}
          <p className="soft">{session.caution}</p>
        </div>
        <div className="stack">
          {g.release ? (
            <Released r={g.release} mine={mine} onDone={onDone} />
          ) : (
            <>
              <div ref={jobRef}>
                <Sheet
                  title="Job"
                  aside={kept.job ? <Link to={`/jobs/${kept.job}`}>Open the job</Link> : undefined}
                >
                  <SelectField
                    label="This flight belongs to"
                    value={kept.job ?? ""}
                    onChange={(e) => {
                      const job = g.jobs.find((x) => x.id === e.target.value);
                      change({ job: e.target.value, ...(job ? { purpose: job.aim.slice(0, 120) } : {}) });
                    }}
                  >
                    <option value="">choose the job</option>
                    {kept.job && !g.jobs.some((x) => x.id === kept.job) && (
                      <option value={kept.job}>another job</option>
                    )}
                    {g.jobs.map((x) => (
                      <option key={x.id} value={x.id}>
                        {x.aim} ({x.site}, {z.both(x.from)})
                      </option>
                    ))}
                  </SelectField>
                  {g.jobs.length === 0 && (
                    <p className="mb-0">
                      No job holds this aircraft. <Link to="/jobs?new=1">Plan one</Link>; practice and check
                      flights are jobs at a base or practice site.
                    </p>
                  )}
                </Sheet>
              </div>
              <div ref={packRef}>
                <Sheet
                  title={g.type.profile.packs.count === 1 ? "Pack" : `${g.type.profile.packs.count} packs`}
                >
                  <PackChoice
                    packs={fit}
                    count={g.type.profile.packs.count}
                    chosen={kept.packs ?? []}
                    onChange={(p) => change({ packs: p })}
                  />
                </Sheet>
              </div>
              <div ref={windRef}>
                <Sheet title="Wind here, now">
                  <WindFields value={kept.wind} onChange={(wind) => change({ wind })} wrong={wrong} />
                  {o.wind && (
                    <p className="mb-0">
                      At {u.show("length", o.wind_m ?? g.type.profile.limits.flight_height_m)}:{" "}
                      <strong className="fig">{u.show("speed", o.wind.steady_ms)}</strong>, gusts{" "}
                      <strong className="fig">{u.show("speed", o.wind.gust_ms)}</strong>
                      {o.wind.gust_assumed && " (assumed)"}. Limits{" "}
                      {u.show("speed", g.type.profile.limits.wind_ms)} and{" "}
                      {u.show("speed", g.type.profile.limits.gust_ms)}.{" "}
                      <span className="soft">{o.wind.notes.join(" ")}</span>
                    </p>
                  )}
                </Sheet>
              </div>
            </>
          )}
        </div>
      </div>
    </>
  );
}

type SignProps = Pick<GateProps, "g" | "kept" | "change" | "question" | "settled">;

function Sign({ g, kept, change, question, settled }: SignProps) {
  const qc = useQueryClient();
  const { person } = useSession();
  const [id, setId] = useState(newId);
  const [pin, setPin] = useState("");
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>();
  const wrong = (name: string) =>
    error instanceof ProblemError ? error.fields.find((f) => f.field === name)?.sentence : undefined;
  const n = g.output.findings.length;
  const release = async () => {
    if (!question.wind) return;
    setBusy(true);
    setError(undefined);
    try {
      await ask(
        api.POST("/releases", {
          body: {
            id,
            aircraft_id: question.aircraft_id,
            pack_ids: question.pack_ids,
            wind: question.wind,
            acceptance: question.acceptance,
            job_id: question.job_id,
            purpose: kept.purpose,
            gate_hash: g.hash,
            pin,
          },
        }),
      );
      setId(newId());
      setPin("");
      await qc.invalidateQueries();
    } catch (e) {
      setError(e);
      setPin(""); // before anything is waited for: the next digits may come at once
      await qc.invalidateQueries({ queryKey: ["gate"] });
    }
    setBusy(false);
  };
  const stopped = g.output.verdict === "stop";
  return (
    <Sheet title="Release">
      {error !== undefined && !(error instanceof ProblemError && error.fields.length > 0) && (
        <Problem error={error} />
      )}
      <TextField
        label="What this flight is for"
        value={kept.purpose}
        onChange={(e) => change({ purpose: e.target.value })}
        wrong={wrong("purpose")}
        maxLength={120}
      />
      <ul className="cautions">
        {g.output.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
      {stopped ? (
        <p className="mb-0">
          <VerdictMark verdict="stop" /> It cannot be released. Do what the findings say; the gate looks again
          by itself.
        </p>
      ) : (
        <>
          <PinPad
            value={pin}
            onChange={setPin}
            who={person.name}
            statement={`As remote pilot in command I release this flight, gate ${words[g.output.verdict].toLowerCase()} with ${n === 0 ? "no finding" : n === 1 ? "1 finding" : `${n} findings`}.`}
            wrong={wrong("pin")}
          />
          <Button className="btn-big w-100" disabled={busy || !settled} onClick={() => void release()}>
            Sign and release
          </Button>
        </>
      )}
    </Sheet>
  );
}

function Released({ r, mine, onDone }: { r: Schemas["Release"]; mine: boolean; onDone: () => void }) {
  const qc = useQueryClient();
  const go = useNavigate();
  const z = useZone();
  const may = useMay();
  const [id] = useState(newId);
  const [error, setError] = useState<unknown>();
  const takeOff = async () => {
    setError(undefined);
    try {
      const f = await ask(
        api.POST("/flights", { body: { id, release_id: r.id, device_at: new Date().toISOString() } }),
      );
      onDone();
      await qc.invalidateQueries();
      void go(`/fly/${f.id}`);
    } catch (e) {
      setError(e);
      await qc.invalidateQueries();
    }
  };
  const withdraw = async () => {
    setError(undefined);
    try {
      await ask(api.POST("/releases/{id}/withdraw", { params: { path: { id: r.id } } }));
      await qc.invalidateQueries();
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Sheet
      title={mine ? "Released by you" : `Released by ${r.pilot}`}
      aside={<span className="soft fig">{z.time(r.at)}</span>}
    >
      <p>{r.purpose}</p>
      {error !== undefined && <Problem error={error} />}
      {mine && (
        <>
          <p>
            Area clear, everybody briefed, stand behind the aircraft, at least 10 m away, beside something to
            get behind. Announce the take-off aloud; the time runs from lift-off.
          </p>
          <Button className="btn-land mb-2" onClick={() => void takeOff()}>
            Take off
          </Button>
        </>
      )}
      {(mine || may()) && (
        <Button variant="outline-primary" className="w-100" onClick={() => void withdraw()}>
          Withdraw the release
        </Button>
      )}
    </Sheet>
  );
}

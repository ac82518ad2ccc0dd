import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay, useSession } from "../parts/session";
import { useAddress } from "../parts/address";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { Hoist, Notices } from "../parts/Hoist";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, Problem, QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { hoursMinutes, useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { AskPanel } from "./AskPanel";
import { BriefingPanel } from "./BriefingPanel";
import { Decisions } from "./Decisions";
import { DecideDialog, type Deciding } from "./DecideDialog";
import { JobForm } from "./JobForm";
import { KitPanel } from "./KitPanel";
import { datumOf, lostLinkWords } from "./model";
import { postWords, stateWords, workWords } from "./words";

type Job = Schemas["Job"];

/** A job: what stands against it, what people have to say about it, its kit, its briefing, its flights. */
/** Where the plan of a kind of work lies, and how it is called. */
const planOf: Partial<Record<string, { path: string; words: string }>> = {
  spraying: { path: "spray", words: "Spray plan" },
  mapping: { path: "mission", words: "Survey plan" },
  inspection: { path: "mission", words: "Inspection plan" },
};

export function JobView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.job(id),
    queryFn: () => ask(api.GET("/jobs/{id}", { params: { path: { id } } })),
    refetchInterval: 60_000,
  });
  return (
    <QueryView query={q} what="the job">
      {(j) => <Planned j={j} />}
    </QueryView>
  );
}

function Planned({ j }: { j: Job }) {
  const may = useMay()("pilot");
  const z = useZone();
  const session = useSession();
  const [params, set] = useAddress();
  const tab = params.get("tab") ?? "who";
  const open = j.asks.filter((a) => !a.option).length;
  const unpacked = j.kit.filter((k) => !k.packed || !k.checked).length;
  const close = () => set({ change: "" });
  const [deciding, setDeciding] = useState<Deciding>();
  const decides =
    j.state === "planned" &&
    (session.person.roles.includes("chief") ||
      j.people.some((p) => p.person_id === session.person.id && p.post === "rpic"));
  const decide = (aircraft: string) =>
    decides
      ? (kind: Schemas["DecisionKind"], finding: Schemas["Finding"]) =>
          setDeciding({ kind, finding, aircraft })
      : undefined;
  return (
    <>
      <ViewHead title={j.aim}>
        <span className="d-flex gap-2 no-print">
          {may && j.state === "planned" && (
            <Button variant="outline-primary" onClick={() => set({ change: "1" })}>
              Change
            </Button>
          )}
          <Button variant="outline-primary" onClick={() => print()}>
            Print
          </Button>
          {may && <Ends j={j} />}
        </span>
      </ViewHead>
      <p className="mb-2">
        {workWords[j.work]} at <Link to={`/sites/${j.site_id}`}>{j.site}</Link>,{" "}
        <span className="fig">
          {z.both(j.from)} to {z.time(j.to)}
        </span>
        {j.product && <> · {j.product}</>}
        {j.state !== "planned" && <strong> · {stateWords[j.state]}</strong>}
      </p>
      {planOf[j.work] && (
        <p className="d-flex gap-2 flex-wrap no-print">
          {j.aircraft.map((a) => (
            <Link
              key={a.aircraft_id}
              className="btn btn-outline-primary"
              to={`/jobs/${j.id}/${planOf[j.work]!.path}/${a.aircraft_id}`}
            >
              {planOf[j.work]!.words} of {a.name}
            </Link>
          ))}
          <a className="btn btn-outline-primary" href={`/api/v1/jobs/${j.id}/sheet.pdf`}>
            Job sheet (PDF)
          </a>
        </p>
      )}
      <div className="two">
        <div className="stack">
          <Sheet
            title="Site, air, airspace, people"
            aside={
              <span aria-live="polite">
                <VerdictMark verdict={j.verdict} />
              </span>
            }
          >
            {j.findings.length === 0 ? (
              <p className="mb-0">Nothing stands against this job.</p>
            ) : (
              <Hoist
                back={{ to: `/jobs/${j.id}`, name: `the job “${j.aim}”` }}
                findings={j.findings}
                aircraft={j.aircraft[0]?.aircraft_id ?? ""}
                here={{
                  job: may ? () => set({ change: "1" }) : undefined,
                  "job-rules": () => set({ tab: "asks" }),
                  briefing: () => set({ tab: "briefing" }),
                }}
                decide={j.aircraft[0] && decide(j.aircraft[0].aircraft_id)}
              />
            )}
            <Notices notices={j.notices} />
            <p className="soft mt-2 mb-0">
              Rules: {j.rules}. {session.caution}
            </p>
          </Sheet>
        </div>
        <div className="stack">
          <Tabs
            label="Parts of the job"
            tabs={[
              { key: "who", name: "Team" },
              { key: "asks", name: "Questions", count: open },
              { key: "briefing", name: "Briefing", count: j.briefing?.missing.length },
              { key: "kit", name: "Kit", count: unpacked },
              { key: "flights", name: "Flights", count: j.flights.length },
            ]}
          />
          {tab === "who" && <Who j={j} decide={decide} />}
          {tab === "asks" && <AskPanel j={j} />}
          {tab === "briefing" && <BriefingPanel j={j} />}
          {tab === "kit" && <KitPanel j={j} />}
          {tab === "flights" && <Flights j={j} />}
        </div>
      </div>
      <Dialog title="Change the job" open={params.get("change") === "1" && may} onClose={close} wide>
        <JobForm key={j.version} job={j} onSaved={close} />
      </Dialog>
      {deciding && <DecideDialog job={j} d={deciding} onClose={() => setDeciding(undefined)} />}
    </>
  );
}

interface WhoProps {
  j: Job;
  decide: (aircraft: string) => ((kind: Schemas["DecisionKind"], f: Schemas["Finding"]) => void) | undefined;
}

function Who({ j, decide }: WhoProps) {
  const u = useUnits();
  return (
    <>
      {j.aircraft.length === 0 && <Empty>No aircraft is named for this job yet.</Empty>}
      {j.aircraft.map((c) => (
        <Sheet
          key={c.aircraft_id}
          title={c.name}
          aside={
            j.state === "planned" ? (
              <Link className="btn btn-primary btn-sm no-print" to={`/gate/${c.aircraft_id}?job=${j.id}`}>
                Gate
              </Link>
            ) : undefined
          }
        >
          <p className="mb-1">
            <Link to={`/fleet/${c.aircraft_id}`}>{c.type}</Link>
            {c.speed_ms != null && <>, at most {u.show("speed", c.speed_ms)}</>}
            {c.route_m != null && (
              <>
                , route {u.show("length", c.route_m)} {datumOf(c.datum, j.work)}
              </>
            )}
            {c.high_m != null && <>, at most {u.show("length", c.high_m)} above the ground</>}. Take-off mass{" "}
            {c.mass_kg != null ? (
              u.show("mass", c.mass_kg)
            ) : j.work !== "spraying" && c.usual_mass_kg != null ? (
              <>{u.show("mass", c.usual_mass_kg)} as weighed</>
            ) : (
              <strong>not known</strong>
            )}
            . Return height{" "}
            {c.return_m == null ? <strong>not read</strong> : <strong>{u.show("length", c.return_m)}</strong>}
            {c.advised_m != null && <>, worked out: {u.show("length", c.advised_m)}</>}. Home point{" "}
            {c.home_follows ? "follows the pilot" : "fixed at take-off"}. Link lost:{" "}
            {c.lost_link ? lostLinkWords[c.lost_link] : <strong>not read</strong>}.
          </p>
          {c.findings.length > 0 && (
            <Hoist
              findings={c.findings}
              aircraft={c.aircraft_id}
              decide={decide(c.aircraft_id)}
              back={{ to: `/jobs/${j.id}`, name: `the job “${j.aim}”` }}
            />
          )}
          <Decisions
            job={j.id}
            decisions={j.decisions.filter((d) => d.aircraft_id === c.aircraft_id)}
            decides={decide(c.aircraft_id) !== undefined}
          />
        </Sheet>
      ))}
      <Sheet title="People">
        {j.people.length === 0 ? (
          <p className="mb-0">Nobody has a role yet.</p>
        ) : (
          <ul className="plain">
            {j.people.map((p) => (
              <li key={p.person_id}>
                <Link to={`/crew/${p.person_id}`}>{p.name}</Link>{" "}
                <span className="soft">{postWords[p.post]}</span>
              </li>
            ))}
          </ul>
        )}
        {j.gear.length > 0 && (
          <p className="soft mt-2 mb-0">
            Gear it depends on: <Link to="/tonight">{j.gear.map((g) => g.name).join(", ")}</Link>
          </p>
        )}
        {(j.meeting || j.channel) && (
          <p className="soft mt-2 mb-0">
            {[j.meeting && `Meeting point: ${j.meeting}`, j.channel].filter(Boolean).join(" · ")}
          </p>
        )}
      </Sheet>
    </>
  );
}

function Flights({ j }: { j: Job }) {
  const z = useZone();
  return (
    <Sheet title="Flights of this job">
      {j.flights.length === 0 ? (
        <p className="mb-0">None yet. Each aircraft goes through its gate first.</p>
      ) : (
        <ul className="plain">
          {j.flights.map((f) => (
            <li key={f.id}>
              <Link to={`/fly/${f.id}`} className="fig">
                {z.both(f.took_off_at)}
              </Link>{" "}
              {f.aircraft}, {f.pilot},{" "}
              {f.state === "logged" ? hoursMinutes(f.seconds) : f.state === "air" ? "in the air" : "landed"}
            </li>
          ))}
        </ul>
      )}
    </Sheet>
  );
}

/** Closes the job or calls it off; either can be taken back. */
function Ends({ j }: { j: Job }) {
  const qc = useQueryClient();
  const [error, setError] = useState<unknown>();
  const [asked, setAsked] = useState(false);
  const end = async (state: Job["state"]) => {
    setError(undefined);
    try {
      await ask(
        api.POST("/jobs/{id}/state", {
          params: { path: { id: j.id } },
          body: { state, version: j.version },
        }),
      );
      setAsked(false);
      await qc.invalidateQueries({ queryKey: ["jobs"] });
    } catch (e) {
      setError(e);
    }
  };
  if (j.state !== "planned")
    return (
      <>
        <Button variant="outline-primary" onClick={() => void end("planned")}>
          Plan it again
        </Button>
        {error !== undefined && <Problem error={error} />}
      </>
    );
  return (
    <>
      <Button variant="outline-primary" onClick={() => setAsked(true)}>
        Close
      </Button>
      <Dialog title="Close this job" open={asked} onClose={() => setAsked(false)}>
        {error !== undefined && <Problem error={error} />}
        <p>
          Is the end called to whoever was told, the sprayer emptied and rinsed, everything switched off, and
          all packed up? A closed job no longer holds its aircraft and people; it can be planned again.
        </p>
        <div className="d-flex gap-2 flex-wrap">
          <Button onClick={() => void end("done")}>It is done</Button>
          <Button variant="outline-primary" onClick={() => void end("called-off")}>
            Call it off
          </Button>
        </div>
      </Dialog>
    </>
  );
}

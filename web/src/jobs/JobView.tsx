import { useJob } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { type Schemas } from "../api/client";
import { useMay, useSession } from "../parts/session";
import { useAddress } from "../parts/address";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { Hoist, Notices } from "../parts/Hoist";
import { Sheet, ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { useZone } from "../parts/time";
import { AskPanel } from "./AskPanel";
import { BriefingPanel } from "./BriefingPanel";
import { DecideDialog, type Deciding } from "./DecideDialog";
import { JobForm } from "./JobForm";
import { KitPanel } from "./KitPanel";
import { stateWords, workWords } from "./words";
import { Who } from "./Who";
import { Flights, Ends } from "./Ends";
import { planOf } from "./plans";

type Job = Schemas["Job"];

export function JobView() {
  const { id = "" } = useParams();
  const q = useJob(id);
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
        <span className="d-flex gap-2 d-print-none">
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
        <p className="d-flex gap-2 flex-wrap d-print-none">
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
        <div className="vstack gap-3">
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
        <div className="vstack gap-3">
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

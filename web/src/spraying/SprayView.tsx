import { useParams } from "react-router";
import { Waits } from "../outbox/Waits";
import { PlanHead } from "../jobs/PlanHead";
import { useAddress } from "../parts/address";
import { QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import type { Plan } from "./api";
import { ChecksLeaf } from "./ChecksLeaf";
import { LoadLeaf } from "./LoadLeaf";
import { PlanLeaf } from "./PlanLeaf";
import { RecordLeaf } from "./RecordLeaf";
import { usePlan } from "./send";
import { SprayedLeaf } from "./SprayedLeaf";

/** How an aircraft of a job sprays its field: the plan, the load sheet, what is sprayed, the calibrations. */
export function SprayView() {
  const { id = "", aircraft = "" } = useParams();
  const { query, plan, about } = usePlan(id, aircraft);
  return (
    <>
      <Waits about={about} />
      <QueryView query={query} what="the spray plan">
        {(p) => <Leaves key={`${p.job_id}-${p.aircraft_id}`} p={plan ?? p} />}
      </QueryView>
    </>
  );
}

function Leaves({ p }: { p: Plan }) {
  const [params] = useAddress();
  const tab = params.get("tab") ?? "plan";
  return (
    <>
      <PlanHead title={`Spraying with ${p.aircraft}`} p={p} />
      <Tabs
        label="Leaves of the spray plan"
        tabs={[
          { key: "plan", name: "Plan" },
          { key: "load", name: "Load sheet" },
          { key: "done", name: "Sprayed", count: p.done.length },
          { key: "checks", name: "Calibrations" },
          { key: "record", name: "Record" },
        ]}
      />
      {tab === "plan" && <PlanLeaf p={p} />}
      {tab === "load" && <LoadLeaf p={p} />}
      {tab === "done" && <SprayedLeaf p={p} />}
      {tab === "record" && <RecordLeaf p={p} />}
      {tab === "checks" && <ChecksLeaf aircraft={p.aircraft_id} />}
    </>
  );
}

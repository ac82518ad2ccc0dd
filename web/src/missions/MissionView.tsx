import { useParams } from "react-router";
import { PlanHead } from "../jobs/PlanHead";
import { useAddress } from "../parts/address";
import { QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { AircraftLeaf } from "./AircraftLeaf";
import { usePlan, type Plan } from "./api";
import { CardLeaf } from "./CardLeaf";
import { FindingsLeaf } from "./FindingsLeaf";
import { PicturesLeaf } from "./PicturesLeaf";
import { PlanLeaf } from "./PlanLeaf";

/** How an aircraft of a job takes its pictures: the plan, what the aircraft holds, the camera, the pictures. */
export function MissionView() {
  const { id = "", aircraft = "" } = useParams();
  return (
    <QueryView query={usePlan(id, aircraft)} what="the mission plan">
      {(p) => <Leaves key={`${p.job_id}-${p.aircraft_id}`} p={p} />}
    </QueryView>
  );
}

function Leaves({ p }: { p: Plan }) {
  const [params] = useAddress();
  const tab = params.get("tab") ?? "plan";
  const read = p.flights.filter((f) => f.standing === "equal").length;
  return (
    <>
      <PlanHead title={`${p.kind === "survey" ? "Survey" : "Inspection"} with ${p.aircraft}`} p={p} />
      <Tabs
        label="Leaves of the mission plan"
        tabs={[
          { key: "plan", name: "Plan" },
          { key: "aircraft", name: "In the aircraft", count: read },
          { key: "camera", name: "Camera" },
          { key: "pictures", name: "Pictures", count: p.flights.filter((f) => f.flown).length },
          ...(p.kind === "inspection" ? [{ key: "found", name: "Found", count: p.findings.length }] : []),
        ]}
      />
      {tab === "plan" && <PlanLeaf p={p} />}
      {tab === "aircraft" && <AircraftLeaf p={p} />}
      {tab === "camera" && <CardLeaf p={p} />}
      {tab === "pictures" && <PicturesLeaf p={p} />}
      {tab === "found" && <FindingsLeaf p={p} />}
    </>
  );
}

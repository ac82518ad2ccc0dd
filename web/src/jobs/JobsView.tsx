import { lazy, Suspense, useState } from "react";
import { Button } from "react-bootstrap";
import { useNavigate } from "react-router";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Dialog } from "../parts/Dialog";
import { More } from "../parts/More";
import { SearchField } from "../parts/SearchField";
import { ViewHead } from "../parts/Sheet";
import { Empty, Loading, QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { JobList } from "./JobList";
import { useJobs } from "./api";

// The list of jobs stands on the first page; their form is fetched when one is planned.
const JobForm = lazy(() => import("./JobForm").then((m) => ({ default: m.JobForm })));

/** The orders of work, by day: what, where, when, with whom. */
export function JobsView() {
  const [params, set] = useAddress();
  const past = params.get("tab") === "past";
  const words = params.get("q") ?? "";
  const q = useJobs({ past, q: words || undefined });
  const may = useMay()("pilot");
  const go = useNavigate();
  const [plan, setPlan] = useState(params.get("new") === "1");
  return (
    <>
      <ViewHead title="Jobs">
        <SearchField
          label="Words in aim, site, people or aircraft"
          placeholder="Aim, site, person, aircraft"
          value={words}
          onChange={(q) => set({ q })}
        />
        {may && <Button onClick={() => setPlan(true)}>Plan a job</Button>}
      </ViewHead>
      <Tabs
        label="Which jobs"
        tabs={[
          { key: "coming", name: "Coming" },
          { key: "past", name: "Done and called off" },
        ]}
      />
      <QueryView query={q} what="the jobs">
        {(d) => {
          if (d.rows.length === 0 && words) return <Empty>No job has these words.</Empty>;
          if (d.rows.length === 0)
            return (
              <Empty>
                {past
                  ? "No job is done or called off yet."
                  : "No job is planned. A job is one order at one site on one day; site, air, airspace, people, kit and briefing hang on it, and its findings go into the gate."}
              </Empty>
            );
          return (
            <>
              <JobList jobs={d.rows} />
              <More of={q} what="jobs" />
            </>
          );
        }}
      </QueryView>
      <Dialog title="Plan a job" open={plan} onClose={() => setPlan(false)} wide>
        <Suspense fallback={<Loading what="the form" />}>
          <JobForm onSaved={(id) => void go(`/jobs/${id}`)} />
        </Suspense>
      </Dialog>
    </>
  );
}

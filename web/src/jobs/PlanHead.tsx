import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";
import { ViewHead } from "../parts/Sheet";

export interface PlanHeadProps {
  title: string;
  p: {
    verdict: Schemas["Verdict"];
    job_id: string;
    aircraft_id: string;
    aim: string;
    site: string;
    version: number;
    by: string;
  };
}

/** The head of a plan of an aircraft of a job, with the ways to both. */
export function PlanHead({ title, p }: PlanHeadProps) {
  return (
    <>
      <ViewHead
        title={title}
        more={
          <Button variant="outline-primary" onClick={() => print()}>
            Print
          </Button>
        }
      >
        <span className="align-self-center">
          <VerdictMark verdict={p.verdict} />
        </span>
        <Link className="btn btn-outline-primary" to={`/jobs/${p.job_id}`}>
          Job
        </Link>
        <Link className="btn btn-outline-primary" to={`/gate/${p.aircraft_id}`}>
          Gate
        </Link>
      </ViewHead>
      <p className="soft">
        {p.aim} · {p.site}
        {p.version > 0 ? ` · planned by ${p.by}` : " · nobody has planned yet"}
      </p>
    </>
  );
}

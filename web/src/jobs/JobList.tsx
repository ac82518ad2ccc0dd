import { Rows } from "../parts/Rows";
import { ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";
import { serverNow, useZone } from "../parts/time";
import { stateWords, workWords } from "./words";

/** Jobs by day; plain leaves the days out where the page is about one. */
export function JobList({ jobs, plain }: { jobs: Schemas["JobHead"][]; plain?: boolean }) {
  const z = useZone();
  const days = [...new Set(jobs.map((j) => z.date(j.from)))];
  const today = z.date(new Date(serverNow()).toISOString());
  return (
    <div>
      {days.map((day) => (
        <section key={day} className="mb-4">
          {!plain && (
            <h2 className="border-bottom border-2 border-primary pb-1">
              <span className="fig">{day}</span>
              {day === today && " today"}
            </h2>
          )}
          <Rows cols="130px minmax(0, 3fr) minmax(0, 2fr) 90px" className="align-top">
            {jobs
              .filter((j) => z.date(j.from) === day)
              .map((j) => (
                <ListGroup.Item as="li" key={j.id}>
                  <span className="fig">
                    {z.time(j.from)}–{z.time(j.to)}
                  </span>
                  <div>
                    <Link
                      to={`/jobs/${j.id}`}
                      className={j.state === "called-off" ? "text-decoration-line-through" : undefined}
                    >
                      {j.aim}
                    </Link>
                    <div className="soft">
                      {workWords[j.work]} at {j.site}
                      {j.state !== "planned" && ` · ${stateWords[j.state]}`}
                    </div>
                  </div>
                  <div className="soft">
                    {j.aircraft.join(", ") || "no aircraft yet"}
                    <br />
                    {j.people.join(", ") || "nobody yet"}
                  </div>
                  <span className="soft text-nowrap">
                    {j.verdict && (
                      <>
                        <VerdictMark verdict={j.verdict} />
                        <br />
                      </>
                    )}
                    {j.flights} {j.flights === 1 ? "flight" : "flights"}
                  </span>
                </ListGroup.Item>
              ))}
          </Rows>
        </section>
      ))}
    </div>
  );
}

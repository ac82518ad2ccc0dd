import { Sum, Sums } from "../parts/Sums";
import { Rows } from "../parts/Rows";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { Flag, words } from "../parts/Flag";
import { ViewHead } from "../parts/Sheet";
import { Empty, Loading, Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { useMay } from "../parts/session";
import { JobList } from "../jobs/JobList";
import { useJobsNow } from "../jobs/api";
import { StartList } from "./StartList";
import { Row } from "./DayRow";

export function useDay() {
  return useQuery({ queryKey: keys.day, queryFn: () => ask(api.GET("/day")), refetchInterval: 60_000 });
}

/** What stops me today: each aircraft with its verdict, its reasons and the next thing to do. */
export function DayView() {
  const day = useDay();
  const jobs = useJobsNow();
  const may = useMay();
  // Both at once: rows that move down under a finger get a press meant for another.
  if (jobs.isPending) return <Loading what="the day" />;
  return (
    <QueryView query={day} what="the day">
      {(d) => (
        <>
          <ViewHead title={`Day ${d.date}`} />
          <Jobs query={jobs} date={d.date} />
          {d.start && may("pilot", "crew", "technician") && (
            <div className="mb-3">
              <StartList all={d.start} />
            </div>
          )}
          {d.aircraft.length === 0 ? (
            <Empty
              action={
                may("technician") ? (
                  <Link className="btn btn-primary" to="/fleet?add=aircraft">
                    Add the first aircraft
                  </Link>
                ) : undefined
              }
            >
              There is no aircraft in service yet. Once there is, this page says what may fly and what stops
              it.
            </Empty>
          ) : (
            <>
              <Numbers d={d} />
              <Rows
                cols="104px minmax(150px, 190px) minmax(0, 1fr) minmax(190px, 250px)"
                always
                className="folds"
              >
                {d.aircraft.map((a) => (
                  <Row key={a.id} a={a} type={d.types.find((t) => t.profile.key === a.type_key)} />
                ))}
              </Rows>
            </>
          )}
        </>
      )}
    </QueryView>
  );
}

/** The jobs of the day, first thing one looks for. */
function Jobs({ query, date }: { query: ReturnType<typeof useJobsNow>; date: string }) {
  const z = useZone();
  if (!query.data) return <Problem error={query.error} retry={() => void query.refetch()} />;
  const today = query.data.rows.filter((j) => z.date(j.from) === date && j.state === "planned");
  return today.length > 0 ? <JobList jobs={today} plain /> : null;
}

function Numbers({ d }: { d: Schemas["Day"] }) {
  const count = (v: string) => d.aircraft.filter((a) => !a.in_air_since && a.verdict === v).length;
  return (
    <Sums aria-label="The day in numbers">
      {(["clear", "watch", "stop"] as const).map((v) => (
        <Sum key={v} figure={count(v)} mark={<Flag verdict={v} />}>
          {words[v].toLowerCase()}
        </Sum>
      ))}
      <Sum className="ms-md-auto" figure={d.packs_charged}>
        <Link to="/packs?state=charged">packs charged</Link>
      </Sum>
      <Sum figure={d.packs_flown}>
        <Link to="/packs?state=flown">flown, to charge</Link>
      </Sum>
      <Sum figure={d.packs_quarantine}>
        <Link to="/packs?state=quarantine">in quarantine</Link>
      </Sum>
    </Sums>
  );
}

import { marksOf } from "../drawings/marks";
import { Explained } from "../parts/Explained";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { Airframe } from "../drawings/Airframe";
import { Flag, VerdictMark, words } from "../parts/Flag";
import { remedyPath, remedyWords } from "../parts/remedy";
import { ViewHead } from "../parts/Sheet";
import { Empty, Loading, Problem, QueryView } from "../parts/states";
import { hoursMinutes, useNow, useZone } from "../parts/time";
import { useMay } from "../parts/session";
import { JobList, useJobs } from "../jobs/JobsView";
import { StartList } from "./StartList";

export function useDay() {
  return useQuery({ queryKey: keys.day, queryFn: () => ask(api.GET("/day")), refetchInterval: 60_000 });
}

/** What stops me today: each aircraft with its verdict, its reasons and the next thing to do. */
export function DayView() {
  const day = useDay();
  const jobs = useJobs();
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
              <Sums d={d} />
              <ul className="day-rows">
                {d.aircraft.map((a) => (
                  <Row key={a.id} a={a} type={d.types.find((t) => t.profile.key === a.type_key)} />
                ))}
              </ul>
            </>
          )}
        </>
      )}
    </QueryView>
  );
}

/** The jobs of the day, first thing one looks for. */
function Jobs({ query, date }: { query: ReturnType<typeof useJobs>; date: string }) {
  const z = useZone();
  if (!query.data) return <Problem error={query.error} retry={() => void query.refetch()} />;
  const today = query.data.jobs.filter((j) => z.date(j.from) === date && j.state === "planned");
  return today.length > 0 ? <JobList jobs={today} plain /> : null;
}

function Sums({ d }: { d: Schemas["Day"] }) {
  const count = (v: string) => d.aircraft.filter((a) => !a.in_air_since && a.verdict === v).length;
  return (
    <div className="sums" aria-label="The day in numbers">
      {(["clear", "watch", "stop"] as const).map((v) => (
        <div key={v}>
          <Flag verdict={v} />
          <span className="fig">{count(v)}</span> {words[v].toLowerCase()}
        </div>
      ))}
      <div className="ms-md-auto">
        <span className="fig">{d.packs_charged}</span> <Link to="/packs?state=charged">packs charged</Link>
      </div>
      <div>
        <span className="fig">{d.packs_flown}</span> <Link to="/packs?state=flown">flown, to charge</Link>
      </div>
      <div>
        <span className="fig">{d.packs_quarantine}</span>{" "}
        <Link to="/packs?state=quarantine">in quarantine</Link>
      </div>
    </div>
  );
}

function Row({ a, type }: { a: Schemas["DayAircraft"]; type?: Schemas["TypeEntry"] }) {
  const to = remedyPath(a.next, a.id) ?? `/fleet/${a.id}`;
  return (
    <li>
      <Link to={`/fleet/${a.id}`} aria-label={`${a.name}, plan`}>
        {type && (
          <Airframe type={type} plain marks={marksOf(a.stations)} height={96} label={`Plan of ${a.name}`} />
        )}
      </Link>
      <div>
        <h2 className="m-0">
          <Link to={`/fleet/${a.id}`}>{a.name}</Link>
        </h2>
        {a.in_air_since ? (
          <strong>{a.next.kind === "flight-log" ? "Landed, not logged" : "In the air"}</strong>
        ) : (
          <VerdictMark verdict={a.verdict} />
        )}
        <div className="soft">
          {a.hours_left != null && <span>{a.hours_left.toFixed(1)} h to next due</span>}
        </div>
      </div>
      <Reasons a={a} />
      <div className="next">
        <Link className={`btn w-100 ${a.verdict === "stop" ? "btn-outline-primary" : "btn-primary"}`} to={to}>
          {remedyWords(a.next)}
        </Link>
      </div>
    </li>
  );
}

function Reasons({ a }: { a: Schemas["DayAircraft"] }) {
  const now = useNow();
  const z = useZone();
  return (
    <ul className="reasons">
      {a.in_air_since && (
        <li>
          {a.pilot}, took off {z.time(a.in_air_since)},{" "}
          {hoursMinutes((now - Date.parse(a.in_air_since)) / 1000)} h ago
        </li>
      )}
      {a.findings
        .filter((f) => !(a.in_air_since && f.rule === "one-aircraft"))
        .map((f, i) => (
          <li key={i}>
            <Flag verdict={f.verdict} size={14} />
            <span>
              <span className="visually-hidden">{words[f.verdict]}: </span>
              <Explained text={f.sentence} />
            </span>
          </li>
        ))}
      {a.more > 0 && <li className="soft">and {a.more} more</li>}
      {a.findings.length === 0 && (
        <li className="soft">
          Nothing against the aircraft; {a.packs_ready}
          {a.packs_more && " or more"} charged packs fit it. The gate asks for packs and wind.
        </li>
      )}
    </ul>
  );
}

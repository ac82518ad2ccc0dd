import { ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { Hoist } from "../parts/Hoist";
import { Sheet } from "../parts/Sheet";
import { Empty } from "../parts/states";
import { useUnits } from "../parts/units";
import { Decisions } from "./Decisions";
import { datumOf, lostLinkWords } from "./model";
import { postWords } from "./words";

type Job = Schemas["Job"];

interface WhoProps {
  j: Job;
  decide: (aircraft: string) => ((kind: Schemas["DecisionKind"], f: Schemas["Finding"]) => void) | undefined;
}

/** Who and what goes: people with their posts, aircraft with what is set in them. */
export function Who({ j, decide }: WhoProps) {
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
              <Link className="btn btn-primary btn-sm d-print-none" to={`/gate/${c.aircraft_id}?job=${j.id}`}>
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
          <ListGroup as="ul" variant="flush">
            {j.people.map((p) => (
              <ListGroup.Item as="li" key={p.person_id}>
                <Link to={`/crew/${p.person_id}`}>{p.name}</Link>{" "}
                <span className="soft">{postWords[p.post]}</span>
              </ListGroup.Item>
            ))}
          </ListGroup>
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

import { ListGroup } from "react-bootstrap";
import { marksOf } from "../drawings/marks";
import { Explained } from "../parts/Explained";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { Airframe } from "../drawings/Airframe";
import { Flag, VerdictMark, words } from "../parts/Flag";
import { remedyPath, remedyWords } from "../parts/remedy";
import { hoursMinutes, useNow, useZone } from "../parts/time";

/** An aircraft on the day, with what stops it and the next thing to do. */
export function Row({ a, type }: { a: Schemas["DayAircraft"]; type?: Schemas["TypeEntry"] }) {
  const to = remedyPath(a.next, a.id) ?? `/fleet/${a.id}`;
  return (
    <ListGroup.Item as="li">
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
      <div>
        <Link className={`btn w-100 ${a.verdict === "stop" ? "btn-outline-primary" : "btn-primary"}`} to={to}>
          {remedyWords(a.next)}
        </Link>
      </div>
    </ListGroup.Item>
  );
}

function Reasons({ a }: { a: Schemas["DayAircraft"] }) {
  const now = useNow();
  const z = useZone();
  return (
    <ul className="list-unstyled m-0">
      {a.in_air_since && (
        <li>
          {a.pilot}, took off {z.time(a.in_air_since)},{" "}
          {hoursMinutes((now - Date.parse(a.in_air_since)) / 1000)} h ago
        </li>
      )}
      {a.findings
        .filter((f) => !(a.in_air_since && f.rule === "one-aircraft"))
        .map((f, i) => (
          <li key={i} className="d-flex gap-2 align-items-baseline">
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

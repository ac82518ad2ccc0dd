import { ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import { VerdictMark } from "../parts/Flag";
import { useZone } from "../parts/time";
import { useOpenDefects, useTrends } from "./api";
import { openAt, trendsAt, type Item } from "./model";

/** What is open at the places that an item looks at, and what the last flights and walks say of their motors. */
export function OfThisPlace({ aircraft, item }: { aircraft: string; item: Item }) {
  const z = useZone();
  const defects = openAt(useOpenDefects(aircraft), item);
  const trends = useTrends(aircraft);
  const said = trends ? trendsAt(trends, item) : [];
  if (!said.length && !defects.length) return null;
  return (
    <ListGroup as="ul" variant="flush" aria-label="Known of this place">
      {defects.map((d) => (
        <ListGroup.Item as="li" key={d.id}>
          <VerdictMark verdict={d.severity} /> Open:{" "}
          <Link to={`/fleet/${aircraft}?defect=${d.id}`}>{d.title}</Link>{" "}
          <span className="soft">
            {d.raised_by}, {z.date(d.raised_at)}
            {d.deferral && `, ${d.deferral}`}
          </span>
        </ListGroup.Item>
      ))}
      {said.map((s) => (
        <ListGroup.Item as="li" key={s.words}>
          <VerdictMark verdict={s.verdict} /> {s.words}
        </ListGroup.Item>
      ))}
    </ListGroup>
  );
}

import { ListGroup } from "react-bootstrap";
import { Notice } from "../parts/Notice";
import { useZone } from "../parts/time";
import type { Run } from "./model";

/** What was said since the last walk, after flights and on other rounds: read before walking. */
export function Wanted({ notes }: { notes: Run["notes"] }) {
  const z = useZone();
  return (
    <Notice role="note" className="d-block mb-3">
      <strong>Said since the last walk:</strong>
      <ListGroup as="ul" variant="flush">
        {notes.map((n) => (
          <ListGroup.Item as="li" key={n.at + n.text}>
            {n.text}{" "}
            <span className="soft">
              {n.by}, {z.both(n.at)}
            </span>
          </ListGroup.Item>
        ))}
      </ListGroup>
    </Notice>
  );
}

import { Button, ListGroup } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { VerdictMark } from "./Flag";
import { groups, unread } from "./importlook";

export interface ImportLookProps {
  report: Schemas["ImportReport"];
  what: string;
  /** A kind in words. */
  called: (kind: string) => string;
  onTake: () => void;
  onLeave: () => void;
}

/** What would become of a file, said before anything of it is taken. */
export function ImportLook({ report, what, called, onTake, onLeave }: ImportLookProps) {
  const seen = report.features ?? [];
  const fields = unread(seen);
  return (
    <div role="status">
      <p className="mb-1">
        <strong>Nothing is taken yet.</strong> {report.accepted} {what} would be, {report.unchanged} are here
        already, {report.refused.length} cannot be used.
      </p>
      <ListGroup as="ul" variant="flush">
        {groups(seen).map((g) => (
          <ListGroup.Item as="li" key={`${g.guessed}${g.kind}${g.shape}`}>
            <VerdictMark verdict={g.guessed ? "watch" : "clear"} /> {g.names.length} as{" "}
            <strong>{called(g.kind)}</strong>
            {g.guessed && `, guessed: the file does not say what this ${g.shape} is`}:{" "}
            <span className="soft">
              {g.names.slice(0, 12).join(", ")}
              {g.names.length > 12 && ` and ${g.names.length - 12} more`}
            </span>
          </ListGroup.Item>
        ))}
      </ListGroup>
      {fields.length > 0 && <p className="mb-1">Not understood, and left out: {fields.join(", ")}.</p>}
      {report.refused.length > 0 && (
        <ul>
          {report.refused.slice(0, 100).map((r, i) => (
            <li key={i}>{r.sentence}</li>
          ))}
        </ul>
      )}
      <div className="d-flex gap-2 flex-wrap">
        <Button onClick={onTake} disabled={report.accepted === 0}>
          Take {report.accepted} onto the map
        </Button>
        <Button variant="outline-primary" onClick={onLeave}>
          Leave it
        </Button>
      </div>
    </div>
  );
}

import { Rows } from "../parts/Rows";
import { Button, ListGroup } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Sheet } from "../parts/Sheet";
import { useZone } from "../parts/time";
import { useTick } from "./api";
import { doneBefore } from "./model";

/** What was done tonight and stands on no list any more, each with the way back. */
export function DoneTonight({ e }: { e: Schemas["Evening"] }) {
  const tick = useTick(e.day);
  const may = useMay()("pilot", "crew", "technician");
  const z = useZone();
  const done = doneBefore(e);
  if (done.length === 0) return null;
  return (
    <Sheet title="Done">
      <Rows cols="minmax(0, 1fr) auto" always className="mb-3 mb-0">
        {done.map((d) => (
          <ListGroup.Item as="li" key={d.item}>
            <span>
              {d.words}{" "}
              <span className="soft">
                {d.by}, {z.time(d.at)}
              </span>
            </span>
            {may && (
              <Button
                variant="outline-primary"
                size="sm"
                className="d-print-none"
                aria-label={`Take back: ${d.words}`}
                onClick={() => tick(d.item, false, d.words)}
              >
                Take back
              </Button>
            )}
          </ListGroup.Item>
        ))}
      </Rows>
    </Sheet>
  );
}

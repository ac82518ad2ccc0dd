import { useState } from "react";
import { Button } from "react-bootstrap";
import { useLink } from "../api/link";
import { usePresses } from "../outbox/hooks";
import { OutboxSheet } from "../outbox/OutboxSheet";
import { waitWords } from "../outbox/model";

/** Whether the server is there, and how much this device has not handed over; always in sight. */
export function LinkMark() {
  const { up } = useLink();
  const all = usePresses();
  const [open, setOpen] = useState(false);
  const refused = all.filter((p) => p.refused).length;
  return (
    <>
      <span className={up ? undefined : "text-danger fw-semibold"} role="status">
        <span aria-hidden="true">{up ? "● " : "○ "}</span>
        {up ? "Connected" : "No connection"}
      </span>
      {all.length > 0 && (
        <Button
          variant="outline-primary"
          size="sm"
          aria-label={refused ? `${refused} not taken: look` : waitWords(all.length)}
          onClick={() => setOpen(true)}
        >
          <span className="fig">{refused || all.length}</span>{" "}
          <span className="d-none d-sm-inline">{refused ? "not taken" : "waiting"}</span>
          <span className="d-sm-none" aria-hidden="true">
            {refused ? "!" : "↑"}
          </span>
        </Button>
      )}
      <OutboxSheet open={open} onClose={() => setOpen(false)} />
    </>
  );
}

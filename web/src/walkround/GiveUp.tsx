import { useAbandonWalkround } from "./api";
import { Button } from "react-bootstrap";
import { useNavigate } from "react-router";
import { Dialog } from "../parts/Dialog";
import { Problem } from "../parts/states";
import type { RunSeen } from "./model";

interface Props {
  w: RunSeen;
  open: boolean;
  onClose: () => void;
}

/** Asks before a walk is given up: it will be no check, and what was found stays. */
export function GiveUp({ w, open, onClose }: Props) {
  const go = useNavigate();
  const abandon = useAbandonWalkround();
  return (
    <Dialog title="Give this walk up?" open={open} onClose={onClose}>
      <p>
        It will be no check. What was found on it so far stays: defects are open, and a pack in quarantine
        stays there.
      </p>
      {abandon.error && <Problem error={abandon.error} />}
      <Button
        variant="danger"
        className="w-100"
        onClick={() => abandon.mutate(w.id, { onSuccess: () => void go(`/fleet/${w.aircraft_id}`) })}
      >
        Give it up
      </Button>
    </Dialog>
  );
}

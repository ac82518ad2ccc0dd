import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { useTick } from "./api";

/** A pack on charge is full: one press, and the rack knows it. */
export function Charged({ e, pack, label }: { e: Schemas["Evening"]; pack: string; label: string }) {
  const tick = useTick(e.day);
  const item = `charged:${pack}`;
  const done = e.ticks.some((t) => t.item === item);
  if (!useMay()("pilot", "crew", "technician")) return null;
  return (
    <Button
      variant="outline-primary"
      size="sm"
      className="d-print-none ms-2"
      aria-pressed={done}
      aria-label={`${label} is charged`}
      onClick={() => tick(item, !done, `${label} charged`)}
    >
      Charged
    </Button>
  );
}

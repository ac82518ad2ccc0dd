import type { ReactNode } from "react";
import { Nav } from "react-bootstrap";

export interface LeavesProps {
  label: string;
  leaves: { key: string; name: ReactNode; count?: number }[];
  now: string;
  onChoose: (key: string) => void;
}

/** Leaves of a view, like the cut index of a logbook: one is open. */
export function Leaves({ label, leaves, now, onChoose }: LeavesProps) {
  return (
    <Nav variant="tabs" as="div" role="group" aria-label={label} className="d-print-none mb-3">
      {leaves.map((l) => (
        <Nav.Link
          key={l.key}
          as="button"
          type="button"
          active={l.key === now}
          aria-pressed={l.key === now}
          onClick={() => onChoose(l.key)}
        >
          {l.name} {l.count !== undefined && <span className="fig fw-normal">{l.count}</span>}
        </Nav.Link>
      ))}
    </Nav>
  );
}

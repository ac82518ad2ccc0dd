import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { ViewHead } from "../parts/Sheet";
import type { AircraftAct } from "./model";

/** What can be done with an aircraft, the usual first. */
export function AircraftHead({ a, onAct }: { a: Schemas["Aircraft"]; onAct: (act: AircraftAct) => void }) {
  const may = useMay();
  return (
    <ViewHead
      title={a.name}
      more={
        may("pilot", "crew", "technician") && (
          <>
            <Button variant="outline-primary" onClick={() => onAct("incident")}>
              Something happened
            </Button>
            <Button variant="outline-danger" onClick={() => onAct("ground")}>
              Ground it
            </Button>
            {may("technician") && (
              <Button variant="outline-primary" onClick={() => onAct("edit")}>
                Change
              </Button>
            )}
          </>
        )
      }
    >
      <Link className="btn btn-primary" to={`/walk/start/${a.id}`}>
        Walkround
      </Link>
      <Link className="btn btn-outline-primary" to={`/gate/${a.id}`}>
        Gate
      </Link>
      {may("pilot", "crew", "technician") && (
        <Button variant="outline-primary" onClick={() => onAct("defect")}>
          Raise a defect
        </Button>
      )}
    </ViewHead>
  );
}

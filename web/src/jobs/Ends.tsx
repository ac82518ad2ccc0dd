import { useEndJob } from "./api";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { hoursMinutes, useZone } from "../parts/time";

type Job = Schemas["Job"];

/** The flights that belong to the job. */
export function Flights({ j }: { j: Job }) {
  const z = useZone();
  return (
    <Sheet title="Flights of this job">
      {j.flights.length === 0 ? (
        <p className="mb-0">None yet. Each aircraft goes through its gate first.</p>
      ) : (
        <ListGroup as="ul" variant="flush">
          {j.flights.map((f) => (
            <ListGroup.Item as="li" key={f.id}>
              <Link to={`/fly/${f.id}`} className="fig">
                {z.both(f.took_off_at)}
              </Link>{" "}
              {f.aircraft}, {f.pilot},{" "}
              {f.state === "logged" ? hoursMinutes(f.seconds) : f.state === "air" ? "in the air" : "landed"}
            </ListGroup.Item>
          ))}
        </ListGroup>
      )}
    </Sheet>
  );
}

/** Closes the job or calls it off; either can be taken back. */
export function Ends({ j }: { j: Job }) {
  const endJob = useEndJob();
  const [error, setError] = useState<unknown>();
  const [asked, setAsked] = useState(false);
  const end = async (state: Job["state"]) => {
    setError(undefined);
    try {
      await endJob.mutateAsync({ id: j.id, body: { state, version: j.version } });
      setAsked(false);
    } catch (e) {
      setError(e);
    }
  };
  if (j.state !== "planned")
    return (
      <>
        <Button variant="outline-primary" onClick={() => void end("planned")}>
          Plan it again
        </Button>
        {error !== undefined && <Problem error={error} />}
      </>
    );
  return (
    <>
      <Button variant="outline-primary" onClick={() => setAsked(true)}>
        Close
      </Button>
      <Dialog title="Close this job" open={asked} onClose={() => setAsked(false)}>
        {error !== undefined && <Problem error={error} />}
        <p>
          Is the end called to whoever was told, the sprayer emptied and rinsed, everything switched off, and
          all packed up? A closed job no longer holds its aircraft and people; it can be planned again.
        </p>
        <div className="d-flex gap-2 flex-wrap">
          <Button onClick={() => void end("done")}>It is done</Button>
          <Button variant="outline-primary" onClick={() => void end("called-off")}>
            Call it off
          </Button>
        </div>
      </Dialog>
    </>
  );
}

import { Button } from "react-bootstrap";
import { useNavigate } from "react-router";
import type { Press } from "../outbox/model";
import { usePresses } from "../outbox/hooks";
import { drop, put } from "../outbox/store";
import { VerdictMark } from "../parts/Flag";
import { Sheet, ViewHead } from "../parts/Sheet";
import { serverIso, useNow, useZone } from "../parts/time";
import type { FlightPresses } from "./model";

/** From when on a take-off counts as one that has happened, in ms: the server judges it no longer, it only notes it. */
const happenedAfter = 10_500;

/** The gate did not let it go. If it is in the air all the same, its time must count. */
export function NotTaken({ p }: { p: Press<FlightPresses["fly.take-off"]> }) {
  const go = useNavigate();
  const z = useZone();
  useNow();
  const others = usePresses().filter((x) => x.thing === p.thing && x.person === p.person);
  const f = p.body.seed;
  const happened = Date.now() - p.at > happenedAfter;
  const back = () => {
    void drop(...others.map((x) => x.id));
    void go(`/gate/${f.aircraft_id}`);
  };
  return (
    <>
      <ViewHead title={`${f.aircraft}: not released to fly`} />
      <Sheet>
        <div role="alert">
          <VerdictMark verdict="stop" big />
          <p className="mt-2">
            <strong>{p.refused?.sentence}</strong>
          </p>
          <p>
            Take-off was pressed at <span className="fig">{z.second(serverIso(p.at))}</span>. If it is on the
            ground, leave it there.
          </p>
        </div>
        <div className="d-flex flex-wrap gap-2">
          <Button className="btn-big" onClick={back}>
            It is on the ground: back to the gate
          </Button>
          <Button
            variant="outline-danger"
            className="btn-big"
            disabled={!happened}
            onClick={() => void put({ ...p, refused: undefined })}
          >
            It has lifted off: land it, and keep its time
          </Button>
        </div>
        <p className="soft mt-2 mb-0">
          A flight kept like this says on record what the gate said.
          {others.length > 1 && ` With it are kept what was pressed since: ${others.length - 1}.`}
        </p>
      </Sheet>
    </>
  );
}

import { Notice } from "../parts/Notice";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { useQuiet } from "../parts/quiet";
import { Waits } from "../outbox/Waits";
import { ViewHead } from "../parts/Sheet";
import { Soon } from "../parts/Soon";
import { useZone } from "../parts/time";
import { useFlightPress } from "./api";
import type { FlightShown } from "./InTheAir";
import { LogForm } from "./LogForm";
import { clock } from "./model";

/** On the ground: disconnect, feel, log; or the landing was a slip. */
export function Landed({ f, about }: FlightShown) {
  useQuiet();
  const z = useZone();
  const press = useFlightPress(f.id);
  const packs = f.packs.length > 1 ? "packs" : "pack";
  return (
    <>
      <ViewHead title={`${f.aircraft} has landed`}>
        <span className="fig align-self-center">
          {z.time(f.took_off_at)}–{f.landed_at && z.time(f.landed_at)}, {clock(f.seconds)}
        </span>
        <Button variant="outline-primary" onClick={() => press("fly.resume", {})}>
          Still in the air: take LAND back
        </Button>
      </ViewHead>
      <Waits about={about} words={about.waiting.at(-1)?.kind === "fly.land" ? "Landed" : undefined} />
      <Notice className="mb-3">
        <p>
          <strong>Disconnect the {packs} first.</strong> Then feel or measure every motor and the {packs}, and
          log while it is fresh. <Link to={`/walk/start/${f.aircraft_id}?kind=landing`}>Landing check</Link>
        </p>
      </Notice>
      <Soon>
        <LogForm f={f} />
      </Soon>
    </>
  );
}

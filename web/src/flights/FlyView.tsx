import { useParams } from "react-router";
import { Waits } from "../outbox/Waits";
import { QueryView } from "../parts/states";
import { useFlight } from "./api";
import { InTheAir } from "./InTheAir";
import { Landed } from "./Landed";
import { Logged } from "./Logged";
import { NotTaken } from "./NotTaken";

/** A flight from take-off to the log. In the air nothing but what is needed there. */
export function FlyView() {
  const { id = "" } = useParams();
  const { query, flight, about, opening } = useFlight(id);
  if (!flight)
    return (
      <>
        <Waits about={about} />
        <QueryView query={query} what="the flight">
          {() => null}
        </QueryView>
      </>
    );
  if (opening?.refused) return <NotTaken p={opening} />;
  const shown = { f: flight, about };
  if (flight.state === "air") return <InTheAir {...shown} />;
  return flight.state === "landed" ? <Landed {...shown} /> : <Logged {...shown} />;
}

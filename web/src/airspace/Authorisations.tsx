import { Button, ListGroup } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";
import { useMay } from "../parts/session";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { useCall, useWithdrawGrant } from "./api";
import { Calls } from "./Wanted";

/** What was asked for and granted, with the calls that are due. */
export function Authorisations({ a, may }: { a: Schemas["Airspace"]; may: boolean }) {
  const u = useUnits();
  const z = useZone();
  const pilot = useMay()("pilot");
  const call = useCall();
  const withdraw = useWithdrawGrant();
  if (a.authorisations.length === 0) return null;
  const failed = call.error ?? withdraw.error;
  return (
    <Sheet title="Authorisations">
      {failed && <Problem error={failed} />}
      <ListGroup as="ul" variant="flush">
        {a.authorisations.map((x) => (
          <ListGroup.Item as="li" key={x.id}>
            <VerdictMark verdict={x.verdict} /> <strong className="fig">{x.number || "no number yet"}</strong>{" "}
            {x.zone}: {x.sentence}
            <div className="soft">
              {u.show("length", x.ceiling_m)}, {z.both(x.from)} to {z.time(x.to)}, asked by {x.asked_by}
              {x.calls.map((c, i) => (
                <span key={i}>
                  {" "}
                  · {c.kind} called {z.time(c.at)} by {c.by}
                  {c.how === "spoken" && " (spoken)"}
                </span>
              ))}
            </div>
            {may && (
              <span className="d-flex gap-2 flex-wrap d-print-none mt-1">
                {x.state === "granted" && (
                  <Calls x={x} desk={a.desk} onCall={(kind, how) => call.mutate({ id: x.id, kind, how })} />
                )}
                {pilot && x.state !== "withdrawn" && x.state !== "refused" && (
                  <Button
                    size="sm"
                    variant="outline-primary"
                    disabled={withdraw.isPending}
                    onClick={() => withdraw.mutate(x.id)}
                  >
                    Withdraw
                  </Button>
                )}
              </span>
            )}
          </ListGroup.Item>
        ))}
      </ListGroup>
    </Sheet>
  );
}

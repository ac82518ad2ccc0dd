import { columns } from "../parts/columns";
import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { VerdictMark } from "../parts/Flag";
import { Sheet, ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { causes, orderStates } from "./OrderList";
import { SignOrder } from "./SignOrder";
import { StepDone, StepEntry } from "./StepEntry";
import { Means } from "./Means";
import { Cancel } from "./CancelOrder";

type Order = Schemas["WorkOrder"];

/** One work order: its steps with readings and photos, what was used, and the signature. */
export function OrderView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.order(id),
    queryFn: () => ask(api.GET("/work-orders/{id}", { params: { path: { id } } })),
  });
  return (
    <QueryView query={q} what="the work order">
      {(o) => <OneOrder o={o} />}
    </QueryView>
  );
}

function OneOrder({ o }: { o: Order }) {
  const z = useZone();
  const may = useMay();
  const works = may("technician") && o.state === "open";
  return (
    <>
      <ViewHead title={o.title}>
        <Link
          className="btn btn-outline-primary d-print-none"
          to={`/fleet/${o.aircraft_id}?station=${o.station}`}
        >
          {o.aircraft}, {o.station_label}
        </Link>
        <Button variant="outline-primary" className="d-print-none" onClick={() => print()}>
          Print
        </Button>
        {works && o.cause !== "event" && <Cancel o={o} />}
      </ViewHead>
      <div className="two" style={columns("minmax(0, 3fr) minmax(0, 2fr)")}>
        <div className="vstack gap-3">
          <Sheet
            title={orderStates[o.state]}
            aside={<span className="soft">because of: {causes[o.cause]}</span>}
          >
            {o.grounds && o.state === "open" && (
              <p>
                <VerdictMark verdict="stop" /> The aircraft stays on the ground until this is signed.
              </p>
            )}
            {o.why && <p>{o.why}</p>}
            {o.cause_note && (
              <p className="soft">
                {o.cause_note.charAt(0).toUpperCase() + o.cause_note.slice(1).replace(/-/g, " ")}
              </p>
            )}
            <ol className="ps-4">
              {o.steps.map((s) => (
                <li key={s.step.id}>{works ? <StepEntry o={o} s={s} /> : <StepDone s={s} />}</li>
              ))}
            </ol>
            <p className="soft mb-0">
              Opened by {o.opened_by}, {z.both(o.opened_at)}. The maker&rsquo;s manual decides where it
              differs.
            </p>
          </Sheet>
        </div>
        <div className="vstack gap-3">
          {works && <SignOrder o={o} />}
          {o.signed_at && (
            <Sheet title="Signed">
              <p>{o.note}</p>
              <p className="soft mb-0">
                {o.signed_by}
                {o.second_by && `, with ${o.second_by}`}, {z.both(o.signed_at)}
              </p>
            </Sheet>
          )}
          {o.acceptance.length > 0 && <AcceptanceFlights o={o} />}
          <Means o={o} works={works} />
        </div>
      </div>
    </>
  );
}

function AcceptanceFlights({ o }: { o: Order }) {
  const z = useZone();
  const next = o.acceptance.find((a) => !a.at);
  const name = (l: string) => (l === "no-load" ? "without load" : "with load");
  return (
    <Sheet title="Acceptance flights">
      <ul className="mb-2 ps-3">
        {o.acceptance.map((a) => (
          <li key={a.load}>
            {name(a.load)}:{" "}
            {a.at ? `flown ${z.both(a.at)}` : o.state === "signed" ? "due" : "after the signature"}
          </li>
        ))}
      </ul>
      {o.state === "signed" && next && (
        <Link className="btn btn-primary" to={`/gate/${o.aircraft_id}?acceptance=${o.id}`}>
          Ask the gate for the flight {name(next.load)}
        </Link>
      )}
    </Sheet>
  );
}

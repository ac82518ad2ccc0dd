import { Rows } from "../parts/Rows";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import type { ReadsOn } from "../api/pages";
import { useMay } from "../parts/session";
import { VerdictMark } from "../parts/Flag";
import { More } from "../parts/More";
import { LongList } from "../parts/LongList";
import { Sheet } from "../parts/Sheet";
import { Empty } from "../parts/states";
import { useZone } from "../parts/time";
import { Defer } from "./Defer";
import { defectOrders, wantedDefect } from "./model";
import { Settle } from "./Settle";
import { ChoiceBox, ChoiceKeys, Several, useChoice } from "./Several";

type Defect = Schemas["Defect"];

const originWords: Record<Defect["origin"], string> = {
  person: "raised by",
  walk: "found on the walk by",
  flight: "shown by a flight of",
};

/** What was decided about a defect, and the ways to decide: a work order or a deferral, never silence. */
export function DefectDecision({ d }: { d: Defect }) {
  const may = useMay();
  const [putOff, setPutOff] = useState(false);
  const [settle, setSettle] = useState(false);
  if (d.closed_at) return <span className="soft">Closed by {d.closed_by}.</span>;
  return (
    <div className="d-flex gap-2 flex-wrap align-items-center">
      {d.deferral && <span>{d.deferral}</span>}
      {d.order_id ? (
        <Link className="btn btn-outline-primary btn-sm" to={`/workshop/orders/${d.order_id}`}>
          Go to the work order
        </Link>
      ) : (
        <>
          {!d.deferral && <strong>Not decided yet.</strong>}
          {may("technician") && (
            <Link
              className="btn btn-outline-primary btn-sm"
              to={`/workshop/orders/new?aircraft=${d.aircraft_id}&defect=${d.id}`}
            >
              Put it right
            </Link>
          )}
          {may("technician") && (
            <Button size="sm" variant="outline-primary" onClick={() => setSettle(true)}>
              Looked at: end it
            </Button>
          )}
          {may("technician") && d.deferrable && (
            <Button size="sm" variant="outline-primary" onClick={() => setPutOff(true)}>
              Put it off
            </Button>
          )}
        </>
      )}
      {settle && <Settle d={d} onClose={() => setSettle(false)} />}
      <Defer
        open={putOff}
        onClose={() => setPutOff(false)}
        aircraft={d.aircraft_id}
        defect={d.id}
        title={d.title}
      />
    </div>
  );
}

/** Defects as far as they have been read, open ones first. */
export function OpenDefects({ defects, pages }: { defects: Defect[]; pages: ReadsOn }) {
  const z = useZone();
  const open = defects.filter((x) => !x.closed_at);
  const closed = defects.filter((x) => x.closed_at);
  const may = useMay()("technician");
  const choice = useChoice();
  const wanted = open.flatMap((x) => wantedDefect(x) ?? []);
  return (
    <div className="vstack gap-3">
      <Sheet title={`Open defects: ${open.length}`}>
        {open.length === 0 && <Empty>None is open. Anyone who sees something raises a defect at once.</Empty>}
        <LongList
          items={open}
          what="open defects"
          orders={defectOrders}
          pages={closed.length === 0 ? pages : undefined}
          tools={may && <ChoiceKeys choice={choice} wanted={wanted} />}
          text={(x) => `${x.aircraft} ${x.title} ${x.note} ${x.raised_by}`}
        >
          {(lines) => (
            <Rows cols="110px minmax(0, 1fr) minmax(0, 1.2fr)">
              {lines.map((x) => (
                <ListGroup.Item as="li" key={x.id}>
                  <span className="text-nowrap">
                    <ChoiceBox choice={choice} w={wantedDefect(x)} /> <VerdictMark verdict={x.severity} />
                  </span>
                  <div>
                    <Link to={`/fleet/${x.aircraft_id}?defect=${x.id}`}>
                      {x.aircraft}: {x.title}
                    </Link>
                    <div className="soft">
                      {originWords[x.origin]} {x.raised_by}, {z.both(x.raised_at)}
                    </div>
                  </div>
                  <DefectDecision d={x} />
                </ListGroup.Item>
              ))}
            </Rows>
          )}
        </LongList>
        <Several choice={choice} wanted={wanted} />
      </Sheet>
      {closed.length > 0 && (
        <Sheet title="Closed defects">
          <Rows cols="110px minmax(0, 1fr) minmax(0, 1.2fr)">
            {closed.map((x) => (
              <ListGroup.Item as="li" key={x.id}>
                <span className="fig">{x.closed_at && z.date(x.closed_at)}</span>
                <span>
                  {x.aircraft}: {x.title}
                </span>
                <span className="soft">
                  {x.closing_note} ({x.closed_by})
                </span>
              </ListGroup.Item>
            ))}
          </Rows>
          <More of={pages} what="defects" />
        </Sheet>
      )}
    </div>
  );
}

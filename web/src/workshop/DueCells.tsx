import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { useMay } from "../parts/session";
import { counted } from "../parts/number";
import { Defer } from "./Defer";
import type { DueLine } from "./model";

/** The task, or the parts that fall due together. */
export function Names({ group }: { group: DueLine[] }) {
  const i = group[0]!;
  if (i.what === "task") return <>{i.label}</>;
  return (
    <>
      {group.slice(0, 6).map((g, n) => (
        <span key={g.station}>
          {n > 0 && ", "}
          <Link to={`/fleet/${g.aircraft_id}?part=${g.station}`}>{g.label}</Link>
        </span>
      ))}
      {group.length > 6 && ` and ${group.length - 6} more`}
    </>
  );
}

/** What a technician may do about a line. */
export function Do({ i }: { i: DueLine }) {
  const may = useMay();
  const [putOff, setPutOff] = useState(false);
  if (i.what !== "task") return null;
  if (i.order_id)
    return (
      <Link className="btn btn-outline-primary btn-sm text-nowrap" to={`/workshop/orders/${i.order_id}`}>
        Go to the work
      </Link>
    );
  if (!may("technician")) return null;
  return (
    <div className="d-flex gap-2 flex-wrap flex-lg-nowrap">
      <Link
        className="btn btn-outline-primary btn-sm text-nowrap"
        to={`/workshop/orders/new?aircraft=${i.aircraft_id}&task=${i.task_id}`}
      >
        Do it
      </Link>
      {i.deferrable && i.verdict !== "clear" && (
        <Button size="sm" variant="outline-primary" className="text-nowrap" onClick={() => setPutOff(true)}>
          Put off
        </Button>
      )}
      <Defer
        open={putOff}
        onClose={() => setPutOff(false)}
        aircraft={i.aircraft_id}
        task={i.task_id}
        title={`${i.aircraft}, ${i.label}`}
      />
    </div>
  );
}

/** The day, and how many are left. */
export function When({ i, days }: { i: DueLine; days?: number }) {
  if (i.verdict === "stop") return <strong>now</strong>;
  if (days === undefined) return <span className="soft">no use, no date</span>;
  return (
    <>
      <span className="fig">{i.due_on}</span>
      <div className="soft">
        {i.forecast ? "by use, " : ""}
        {days <= 0 ? "today" : `in ${counted(days, "day")}`}
      </div>
    </>
  );
}

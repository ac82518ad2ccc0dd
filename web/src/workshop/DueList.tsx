import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { Rope } from "../drawings/Rope";
import { VerdictMark } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { LongList } from "../parts/LongList";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useNow } from "../parts/time";
import { Defer } from "./Defer";
import { counted } from "../parts/number";

type Item = Schemas["DueItem"];

const spans: [string, number][] = [
  ["14", 14],
  ["60", 60],
  ["180", 180],
];

/** Parts of one aircraft that fall due on the same day for the same reason stand in one line. */
function together(items: Item[]): Item[][] {
  const groups = new Map<string, Item[]>();
  for (const i of items) {
    const key = [i.aircraft_id, i.what, i.kind, i.task_id, i.sentence, i.due_on].join("|");
    groups.set(key, [...(groups.get(key) ?? []), i]);
  }
  return [...groups.values()];
}

export function DueList() {
  const due = useQuery({ queryKey: keys.due, queryFn: () => ask(api.GET("/due")) });
  return (
    <QueryView query={due} what="what falls due">
      {(d) => <List d={d} />}
    </QueryView>
  );
}

function List({ d }: { d: Schemas["DueList"] }) {
  const [params, set] = useAddress();
  const now = useNow();
  const within = params.get("within") ?? "60";
  const what = params.get("what") ?? "";
  const limit = spans.find(([k]) => k === within)?.[1];
  const days = (i: Item) => (i.due_on ? Math.ceil((Date.parse(i.due_on) - now) / 86_400_000) : undefined);
  const shown = together(
    d.items.filter(
      (i) =>
        (!what || i.what === what) &&
        (i.verdict !== "clear" || limit === undefined || (days(i) ?? Infinity) <= limit),
    ),
  );
  return (
    <Sheet
      title="What falls due"
      aside={
        <div className="d-flex gap-2 flex-wrap no-print">
          <select
            className="form-select"
            style={{ width: 190 }}
            aria-label="Parts or tasks"
            value={what}
            onChange={(e) => set({ what: e.target.value })}
          >
            <option value="">tasks and parts</option>
            <option value="task">tasks</option>
            <option value="part">parts</option>
          </select>
          <select
            className="form-select"
            style={{ width: 230 }}
            aria-label="How far to look ahead"
            value={within}
            onChange={(e) => set({ within: e.target.value })}
          >
            <option value="14">in the next 14 days</option>
            <option value="60">in the next 60 days</option>
            <option value="180">in the next 180 days</option>
            <option value="all">everything</option>
          </select>
        </div>
      }
    >
      {shown.length === 0 ? (
        <Empty>Nothing falls due in that time.</Empty>
      ) : (
        <LongList
          items={shown}
          what="what falls due"
          text={(g) => `${g[0]!.aircraft} ${g.map((i) => i.label).join(" ")} ${g[0]!.sentence}`}
        >
          {(lines) => (
            <ScrollX label="What falls due">
              <table className="ledger">
                <thead>
                  <tr>
                    <th>When</th>
                    <th>Aircraft</th>
                    <th>Task or part</th>
                    <th>Life</th>
                    <th style={{ width: 110 }}>Left</th>
                    <th className="no-print">Do</th>
                  </tr>
                </thead>
                <tbody>
                  {lines.map((group) => {
                    const i = group[0]!;
                    return (
                      <tr key={`${i.aircraft_id}-${i.what}-${i.station}-${i.task_id}`}>
                        <td className="text-nowrap">
                          <When i={i} days={days(i)} />
                        </td>
                        <td className="text-nowrap">{i.aircraft}</td>
                        <td>
                          <Names group={group} />
                        </td>
                        <td>
                          <VerdictMark verdict={i.verdict} /> {i.sentence}
                        </td>
                        <td>
                          <Rope used={i.fraction} verdict={i.verdict} label={i.sentence} />
                        </td>
                        <td className="no-print">
                          <Do i={i} />
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </ScrollX>
          )}
        </LongList>
      )}
      <p className="soft mt-2 mb-0">
        Days by use are a forecast from the last 28 days, the last 14 counted twice.{" "}
        {d.no_date > 0 && `${d.no_date} have a limit but no use and no date.`} The maker&rsquo;s programme
        decides.
      </p>
    </Sheet>
  );
}

function Names({ group }: { group: Item[] }) {
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

function Do({ i }: { i: Item }) {
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
    <div className="d-flex gap-2">
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

function When({ i, days }: { i: Item; days?: number }) {
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

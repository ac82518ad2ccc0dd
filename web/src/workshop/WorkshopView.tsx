import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { Rope } from "../drawings/Rope";
import { VerdictMark } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useNow, useZone } from "../parts/time";

type Item = Schemas["DueItem"];

/** The workshop: what falls due and when, and the defects that wait. */
export function WorkshopView() {
  const due = useQuery({ queryKey: keys.due, queryFn: () => ask(api.GET("/due")) });
  const defects = useQuery({ queryKey: keys.defects, queryFn: () => ask(api.GET("/defects")) });
  return (
    <>
      <ViewHead title="Workshop">
        <Button variant="outline-primary" className="no-print" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      <div className="stack">
        <QueryView query={defects} what="the defects">
          {(d) => <OpenDefects defects={d.defects.filter((x) => !x.closed_at)} />}
        </QueryView>
        <QueryView query={due} what="what falls due">
          {(d) => <DueList d={d} />}
        </QueryView>
      </div>
    </>
  );
}

function OpenDefects({ defects }: { defects: Schemas["Defect"][] }) {
  const z = useZone();
  return (
    <Sheet title={`Open defects: ${defects.length}`}>
      {defects.length === 0 && <p className="soft m-0">None.</p>}
      <ul className="mb-0 ps-0" style={{ listStyle: "none" }}>
        {defects.map((x) => (
          <li key={x.id} className="d-flex gap-3 align-items-center flex-wrap py-1">
            <VerdictMark verdict={x.severity} />
            <Link to={`/fleet/${x.aircraft_id}?defect=${x.id}`}>
              {x.aircraft}: {x.title}
            </Link>
            <span className="soft">
              {x.raised_by}, {z.both(x.raised_at)}
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

const spans: [string, number][] = [
  ["14", 14],
  ["60", 60],
  ["180", 180],
];

/** Parts of one aircraft that fall due on the same day for the same reason stand in one line. */
function together(items: Item[]): Item[][] {
  const groups = new Map<string, Item[]>();
  for (const i of items) {
    const key = [i.aircraft_id, i.kind, i.sentence, i.due_on].join("|");
    groups.set(key, [...(groups.get(key) ?? []), i]);
  }
  return [...groups.values()];
}

function DueList({ d }: { d: Schemas["DueList"] }) {
  const [params, set] = useAddress();
  const now = useNow();
  const within = params.get("within") ?? "60";
  const limit = spans.find(([k]) => k === within)?.[1];
  const days = (i: Item) => (i.due_on ? Math.ceil((Date.parse(i.due_on) - now) / 86_400_000) : undefined);
  const shown = together(
    d.items.filter((i) => i.verdict !== "clear" || limit === undefined || (days(i) ?? Infinity) <= limit),
  );
  return (
    <Sheet
      title="What falls due"
      aside={
        <select
          className="form-select no-print"
          style={{ width: 250 }}
          aria-label="How far to look ahead"
          value={within}
          onChange={(e) => set({ within: e.target.value })}
        >
          <option value="14">in the next 14 days</option>
          <option value="60">in the next 60 days</option>
          <option value="180">in the next 180 days</option>
          <option value="all">everything</option>
        </select>
      }
    >
      {shown.length === 0 ? (
        <Empty>Nothing falls due in that time.</Empty>
      ) : (
        <ScrollX label="What falls due">
          <table className="ledger">
            <thead>
              <tr>
                <th>When</th>
                <th>Aircraft</th>
                <th>Part</th>
                <th>Life</th>
                <th style={{ width: 130 }}>Left</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((group) => {
                const i = group[0]!;
                return (
                  <tr key={`${i.aircraft_id}-${i.station}`}>
                    <td className="text-nowrap">
                      <When i={i} days={days(i)} />
                    </td>
                    <td className="text-nowrap">{i.aircraft}</td>
                    <td>
                      {group.map((g, n) => (
                        <span key={g.station}>
                          {n > 0 && ", "}
                          <Link to={`/fleet/${g.aircraft_id}?station=${g.station}`}>{g.label}</Link>
                        </span>
                      ))}
                    </td>
                    <td>
                      <VerdictMark verdict={i.verdict} /> {i.sentence}
                    </td>
                    <td>
                      <Rope used={i.fraction} verdict={i.verdict} label={i.sentence} />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </ScrollX>
      )}
      <p className="soft mt-2 mb-0">
        Days by use are a forecast from the last 28 days, the last 14 counted twice.{" "}
        {d.no_date > 0 && `${d.no_date} parts have a limit but no use and no date.`} The maker&rsquo;s
        programme decides.
      </p>
    </Sheet>
  );
}

function When({ i, days }: { i: Item; days?: number }) {
  if (i.verdict === "stop") return <strong>now</strong>;
  if (days === undefined) return <span className="soft">no use, no date</span>;
  return (
    <>
      <span className="fig">{i.due_on}</span>
      <div className="soft">
        {i.forecast ? "by use, " : ""}in {days} days
      </div>
    </>
  );
}

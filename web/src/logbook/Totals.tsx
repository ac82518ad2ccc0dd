import { Sum, Sums } from "../parts/Sums";
import { Table } from "react-bootstrap";
import { lazy, Suspense } from "react";
import type { Schemas } from "../api/client";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { hoursMinutes } from "../parts/time";
import { type Filter, useTotals } from "./api";

const LogPlots = lazy(() => import("./LogPlots"));

/** Sums of the selection, drawn and as tables. */
export function Totals({ filter }: { filter: Filter }) {
  const q = useTotals(filter);
  const groups = (t: Schemas["Totals"]): [string, Schemas["Total"][]][] => [
    ["By pilot", t.by_pilot],
    ["By aircraft", t.by_aircraft],
    ["By type", t.by_type],
    ["By pack", t.by_pack],
  ];
  return (
    <QueryView query={q} what="the totals">
      {(t) => (
        <div className="mb-3">
          <Sums>
            <Sum figure={hoursMinutes(t.all.seconds)}>hours</Sum>
            <Sum figure={t.all.flights}>flights</Sum>
            <Sum figure={t.all.landings}>landings</Sum>
          </Sums>
          <Suspense fallback={null}>
            <LogPlots filter={filter} totals={t} />
          </Suspense>
          <details>
            <summary className="tap py-2">Totals by pilot, aircraft, type and pack</summary>
            <div className="two">
              {groups(t).map(([name, rows]) => (
                <Sheet key={name} title={name}>
                  <Table>
                    <thead>
                      <tr>
                        <th>Name</th>
                        <th className="num">Hours</th>
                        <th className="num">Flights</th>
                        <th className="num">Landings</th>
                      </tr>
                    </thead>
                    <tbody>
                      {rows.map((r) => (
                        <tr key={r.name}>
                          <td>{r.name}</td>
                          <td className="num">{hoursMinutes(r.seconds)}</td>
                          <td className="num">{r.flights}</td>
                          <td className="num">{r.landings}</td>
                        </tr>
                      ))}
                    </tbody>
                  </Table>
                </Sheet>
              ))}
            </div>
          </details>
        </div>
      )}
    </QueryView>
  );
}

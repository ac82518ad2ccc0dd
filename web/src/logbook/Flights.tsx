import { Table } from "react-bootstrap";
import { Link } from "react-router";
import { More } from "../parts/More";
import { counted } from "../parts/number";
import { ScrollX } from "../parts/ScrollX";
import { Empty, Loading, Problem } from "../parts/states";
import { hoursMinutes, useZone } from "../parts/time";
import { type Filter, useFlights } from "./api";

/** The flights of the selection, newest first. */
export function Flights({ filter }: { filter: Filter }) {
  const z = useZone();
  const q = useFlights(filter);
  if (q.isError && !q.data) return <Problem error={q.error} retry={() => void q.refetch()} />;
  if (!q.data) return <Loading what="the flights" />;
  const flights = q.data.rows;
  if (flights.length === 0)
    return (
      <Empty>
        {Object.values(filter).some(Boolean)
          ? "No flight matches."
          : "No flight has been logged yet. Flights come here by themselves when they are logged."}
      </Empty>
    );
  return (
    <ScrollX label="Flights">
      <Table>
        <thead>
          <tr>
            <th>Take-off</th>
            <th>Aircraft</th>
            <th>Pilot</th>
            <th>Packs</th>
            <th className="num">h:min</th>
            <th className="num">Ldg</th>
            <th>Purpose and remarks</th>
          </tr>
        </thead>
        <tbody>
          {flights.map((f) => (
            <tr key={f.id}>
              <td className="fig text-nowrap">
                <Link to={`/fly/${f.id}`}>{z.both(f.took_off_at)}</Link>
              </td>
              <td className="text-nowrap">{f.aircraft}</td>
              <td>{f.pilot}</td>
              <td>{f.packs.join(", ")}</td>
              <td className="num">{hoursMinutes(f.seconds)}</td>
              <td className="num">{f.landings}</td>
              <td>
                {f.purpose}
                {f.remarks && <div className="soft">{f.remarks}</div>}
                {f.events > 0 && <div className="soft">{counted(f.events, "event")}</div>}
                {f.source === "import" && <div className="soft">imported</div>}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <More of={q} what="flights" />
    </ScrollX>
  );
}

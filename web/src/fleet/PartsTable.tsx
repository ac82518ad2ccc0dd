import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";
import { ScrollX } from "../parts/ScrollX";
import { useZone } from "../parts/time";

/** The parts of an aircraft, nearest to their limit first. */
export function PartsTable({
  d,
  onChoose,
}: {
  d: Schemas["AircraftDetail"];
  onChoose: (station: string) => void;
}) {
  const z = useZone();
  const [all, setAll] = useState(false);
  const parts = [...d.parts].sort((a, b) => b.fraction - a.fraction);
  return (
    <div className="sheet mt-3">
      <h2>Parts, nearest to their limit first</h2>
      <ScrollX label="Parts">
        <Table>
          <thead>
            <tr>
              <th>Station</th>
              <th>Serial</th>
              <th className="num">Hours</th>
              <th className="num">Flights</th>
              <th>Fitted</th>
              <th>Life</th>
            </tr>
          </thead>
          <tbody>
            {(all ? parts : parts.slice(0, 6)).map((p) => (
              <tr key={p.id}>
                <td>
                  <Button variant="link" className="p-0 text-start" onClick={() => onChoose(p.station)}>
                    {p.station_label}
                  </Button>
                </td>
                <td className="fig">{p.serial}</td>
                <td className="num">{p.hours.toFixed(1)}</td>
                <td className="num">{p.flights}</td>
                <td className="fig">{p.fitted_at && z.date(p.fitted_at)}</td>
                <td>
                  <VerdictMark verdict={p.verdict} /> {p.due}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </ScrollX>
      {parts.length > 6 && (
        <Button variant="outline-primary" size="sm" className="mt-2" onClick={() => setAll(!all)}>
          {all ? "Show fewer" : `Show all ${parts.length}`}
        </Button>
      )}
    </div>
  );
}

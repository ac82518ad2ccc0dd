import { Table } from "react-bootstrap";
import { Link } from "react-router";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { limitWords, minutes, rates } from "./model";

/** The flights that are left, in the order flown. */
export function Sorties({ p }: { p: Plan }) {
  const u = useUnits();
  const r = rates(u);
  if (p.sorties.length === 0) return null;
  const several = new Set(p.sorties.map((s) => s.from)).size > 1;
  return (
    <Sheet title="Flights">
      <ScrollX label="Flights of the plan">
        <Table>
          <thead>
            <tr>
              <th className="num">Flight</th>
              <th className="num">Passes</th>
              <th className="num">Area</th>
              <th className="num">Load</th>
              <th className="num">Take-off</th>
              <th className="num">Min</th>
              <th className="num">Packs</th>
              {several && <th>From</th>}
              <th>Ends because</th>
            </tr>
          </thead>
          <tbody>
            {p.sorties.map((s, i) => (
              <tr key={i}>
                <td className="num">{i + 1}</td>
                <td className="num">{s.legs.length}</td>
                <td className="num">
                  {(s.ha / r.area).toFixed(2)} {r.areaLabel}
                </td>
                <td className="num">
                  {p.wish.granules ? u.show("mass", s.litres) : u.show("volume", s.litres)}
                </td>
                <td className="num">{u.show("mass", s.take_off_kg)}</td>
                <td className="num">{minutes(s.seconds)}</td>
                <td className="num">{Math.round((s.wh / p.usable_wh) * 100)} %</td>
                {several && <td>{s.from}</td>}
                <td>{limitWords[s.limit]}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </ScrollX>
      <p className="d-print-none mb-1">
        <Link to={`/rotation?job=${p.job_id}&aircraft=${p.aircraft_id}`}>The day with these flights</Link>
      </p>
      <p className="soft mb-0">Packs: of what they give over the level at which it lands.</p>
    </Sheet>
  );
}

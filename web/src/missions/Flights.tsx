import { Button, Table } from "react-bootstrap";
import { Link } from "react-router";
import { Sheet } from "../parts/Sheet";
import { ScrollX } from "../parts/ScrollX";
import { VerdictMark } from "../parts/Flag";
import type { Plan } from "./api";
import { minutes, standings } from "./model";

export interface FlightsProps {
  p: Plan;
  shown?: number;
  onShow: (number: number) => void;
}

/** The flights of a plan: what each takes, what the aircraft holds of it, and whether it is flown. */
export function Flights({ p, shown, onShow }: FlightsProps) {
  if (p.flights.length === 0) return null;
  return (
    <Sheet title="Flights, one set of packs each">
      <ScrollX label="Flights">
        <Table>
          <thead>
            <tr>
              <th>Flight</th>
              {p.kind === "survey" && <th>Part</th>}
              <th>Pictures</th>
              <th>Time</th>
              <th>Packs</th>
              <th>In the aircraft</th>
              <th>Flown</th>
            </tr>
          </thead>
          <tbody>
            {p.flights.map((f) => (
              <tr key={f.number}>
                <td>
                  <Button
                    variant={f.number === shown ? "primary" : "outline-primary"}
                    aria-label={`Show flight ${f.number}`}
                    aria-pressed={f.number === shown}
                    onClick={() => onShow(f.number)}
                  >
                    {f.number}
                    {f.again && " (again)"}
                  </Button>
                </td>
                {p.kind === "survey" && <td>{f.part + 1}</td>}
                <td className="fig">{f.pictures}</td>
                <td className="fig">{minutes(f.seconds)} min</td>
                <td className="fig">
                  {Math.round(f.wh)} Wh · {Math.round(f.percent)} %
                </td>
                <td>
                  {p.version > 0 ? (
                    <Link to={`?tab=aircraft&flight=${f.number}`}>
                      <VerdictMark verdict={standings[f.standing].verdict} /> {standings[f.standing].words}
                    </Link>
                  ) : (
                    "—"
                  )}
                </td>
                <td>
                  {f.flown ? (
                    <Link to={`?tab=pictures&flight=${f.number}`}>
                      {f.flown.taken.count} pictures by {f.flown.by}
                    </Link>
                  ) : (
                    "no"
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </ScrollX>
      <p className="soft mt-2 mb-0">Percent of full packs, with what stays in them for landing.</p>
    </Sheet>
  );
}

import { Table } from "react-bootstrap";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";

/** The parts of a survey by the ground under them, with what is seen of it and where to take off. */
export function Parts({ p }: { p: Plan }) {
  const u = useUnits();
  const m = (v: number) => u.show("length", v);
  return (
    <Sheet title={p.parts.length === 1 ? "The ground under it" : `${p.parts.length} parts by their ground`}>
      <ScrollX label="Parts">
        <Table>
          <thead>
            <tr>
              <th>Part</th>
              <th>Ground</th>
              <th>Flown</th>
              <th>One pixel</th>
              <th>Overlap left</th>
              <th>Pictures</th>
            </tr>
          </thead>
          <tbody>
            {p.parts.map((x, i) => (
              <tr key={i}>
                <td>
                  {i + 1}
                  {x.cross && " across"}
                </td>
                <td className="fig">{x.known ? `${m(x.low_m)} to ${m(x.high_m)}` : "not known"}</td>
                <td className="fig">{m(x.height_m)} over take-off</td>
                <td className="fig">
                  {x.best_cm.toFixed(1)} to {x.gsd_cm.toFixed(1)} cm
                </td>
                <td className="fig">
                  {Math.round(x.side_left)} / {Math.round(x.front_left)} %
                </td>
                <td className="fig">{x.pictures}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </ScrollX>
      <ul className="mt-2 mb-0">
        {p.parts.map((x, i) => (
          <li key={i}>
            Part {i + 1}: {x.sentence}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

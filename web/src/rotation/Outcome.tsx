import { Sum, Sums } from "../parts/Sums";
import { Table } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { counted } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { hm, moreWords } from "./model";

/** When the work is done, what was waited for, and what one more of each would gain. */
export function Outcome({ r }: { r: Schemas["Rotation"] }) {
  const run = r.run;
  const waits = Object.entries(run.waited_s).filter(([, s]) => s > 0);
  return (
    <Sheet title="What comes of it">
      {r.stuck ? (
        <p className="judged stop">
          After {counted(run.flown, "flight")} no set of packs is ready again: the work never ends like this.
        </p>
      ) : (
        <>
          <Sums aria-live="polite">
            <Sum figure={hm(run.end_s)}>until the last landing</Sum>
            <Sum figure={run.done.toFixed(1)}>ha</Sum>
            <Sum figure={run.per_hour.toFixed(2)}>ha an hour</Sum>
          </Sums>
          {!run.all_done && (
            <p className="judged watch">The day is over after {counted(run.flown, "flight")}.</p>
          )}
          {r.spread && (
            <p>
              Half of the days end by {hm(r.spread.end_s[1]!)}, nine of ten by {hm(r.spread.end_s[2]!)};{" "}
              {Math.round(r.spread.in_time * 100)} % finish in time.
            </p>
          )}
          <p>
            {waits.length === 0
              ? "No aircraft waits."
              : `Aircraft wait ${waits.map(([why, s]) => `${hm(s)} for ${why}`).join(", ")}.`}
            {run.queue_s > 60 && ` Packs wait ${hm(run.queue_s)} for a charger.`}
          </p>
        </>
      )}
      <Table>
        <tbody>
          {r.gains.map((g) => (
            <tr key={g.more} className={g.more === r.bottleneck ? "fw-semibold" : ""}>
              <td>With {moreWords[g.more]}</td>
              <td className="num">
                {g.saved_s == null
                  ? `done after ${hm(g.end_s)}`
                  : g.saved_s > 30
                    ? `${hm(g.saved_s)} sooner`
                    : "nothing gained"}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Sheet>
  );
}

import type { Schemas } from "../api/client";
import { CapacityCurve } from "../drawings/CapacityCurve";
import { OhmCurve } from "../drawings/OhmCurve";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Empty } from "../parts/states";

type Standing = Schemas["PackStanding"];

/** What the history of a pack says: capacity and its forecast, resistance, self-discharge, the lowest cell. */
export function StandingSheet({ s, rated }: { s: Standing | null; rated: number }) {
  if (!s)
    return (
      <Sheet title="Condition over time">
        <Empty>
          Never measured. A charge with its mAh between two levels tells the capacity; readings with
          resistance and temperature tell the rest. Enter them here, bring in the file of a charger, or use
          the charger on the network.
        </Empty>
      </Sheet>
    );
  const d = s.discharge;
  return (
    <>
      <Sheet
        title="Capacity"
        aside={s.capacity.health_percent != null ? <VerdictMark verdict={s.capacity.verdict} /> : undefined}
      >
        <CapacityCurve standing={s} rated={rated} />
        <p className="mb-0">{s.capacity.sentence}</p>
        {s.points.length > 0 && (
          <p className="soft mb-0">
            {s.points.length} measurements; bars are their error. Line by the median of all slopes, interval
            90 %.
          </p>
        )}
      </Sheet>
      <Sheet
        title="Resistance and rest"
        aside={s.resistance.known ? <VerdictMark verdict={s.resistance.verdict} /> : undefined}
      >
        <OhmCurve trend={s.trend} />
        {s.trend.length > 1 && <p className="soft mb-1">Mean of the cells, mΩ</p>}
        <p>{s.resistance.sentence}</p>
        <p>
          {d ? (
            <>
              <VerdictMark verdict={d.verdict} /> {d.sentence}
            </>
          ) : (
            "Self-discharge is not known: it takes two readings of one rest, the first a day after the charge, the second at least three days later."
          )}
        </p>
        {s.lowest_cell > 0 && (
          <p className="mb-0">
            <VerdictMark verdict="watch" /> Cell {s.lowest_cell} was the lowest in each of the last three
            resting readings.
          </p>
        )}
      </Sheet>
    </>
  );
}

import { tiles } from "../parts/columns";
import { Bar, BarChart, CartesianGrid, Tooltip, XAxis, YAxis } from "recharts";
import type { Schemas } from "../api/client";
import { axis, bar, gridLines, Plot, tip } from "../parts/chart";
import { Sheet } from "../parts/Sheet";
import { type Filter, useWeeks } from "./api";
import { hoursOf, weeksWords } from "./model";

/** The selection drawn: flights week by week, and who and what flew the hours. */
export default function LogPlots({ filter, totals }: { filter: Filter; totals: Schemas["Totals"] }) {
  const q = useWeeks(filter);
  const weeks = q.data?.weeks ?? [];
  if (weeks.length === 0) return null;
  return (
    <div className="tiles my-3" style={tiles(340)}>
      <Sheet title="Flights by week">
        <Plot label={weeksWords(weeks)} height={200}>
          <BarChart data={weeks} margin={{ top: 8, right: 8, bottom: 0, left: -12 }}>
            <CartesianGrid vertical={false} {...gridLines} />
            <XAxis dataKey="from" {...axis} minTickGap={40} />
            <YAxis allowDecimals={false} {...axis} />
            <Tooltip {...tip} labelFormatter={(w) => `Week of ${String(w)}`} />
            <Bar dataKey="flights" name="flights" {...bar} />
          </BarChart>
        </Plot>
      </Sheet>
      <Hours title="Hours by aircraft" rows={totals.by_aircraft} />
      <Hours title="Hours by pilot" rows={totals.by_pilot} />
    </div>
  );
}

function Hours({ title, rows }: { title: string; rows: Schemas["Total"][] }) {
  const data = hoursOf(rows, 8);
  return (
    <Sheet title={title}>
      <Plot
        label={`${title}: ${data.map((d) => `${d.name} ${d.hours} h`).join(", ")}`}
        height={Math.max(data.length * 34 + 34, 120)}
      >
        <BarChart data={data} layout="vertical" margin={{ top: 0, right: 20, bottom: 0, left: 0 }}>
          <XAxis type="number" {...axis} unit=" h" />
          <YAxis type="category" dataKey="name" width={150} {...axis} />
          <Tooltip {...tip} />
          <Bar dataKey="hours" name="hours" {...bar} />
        </BarChart>
      </Plot>
    </Sheet>
  );
}

import { Line, LineChart, ReferenceLine, Tooltip, XAxis, YAxis, CartesianGrid } from "recharts";
import { Link } from "react-router";
import { axis, gridLines, Plot, tip } from "../parts/chart";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { useRackHealth } from "./api";
import { healthRows, named, weakest } from "./health";

/** The measured health of the whole rack over time: which packs fall behind the others. */
export default function RackHealth() {
  const q = useRackHealth();
  const z = useZone();
  return (
    <QueryView query={q} what="the health of the rack">
      {({ packs }) => {
        const measured = packs.filter((p) => p.points.length > 0);
        const without = packs.length - measured.length;
        const weak = weakest(measured, named);
        if (measured.length === 0)
          return (
            <Empty>
              No capacity has been measured yet: a charge from the charger, or a reading with what went out,
              gives the first point.
            </Empty>
          );
        return (
          <Sheet title="Health of the rack, percent of the rated capacity">
            <Plot
              label={`Measured capacity of ${measured.length} packs over time; weakest: ${weak.map((p) => `${p.label} ${p.now} %`).join(", ")}`}
              height={360}
            >
              <LineChart data={healthRows(measured)} margin={{ top: 8, right: 16, bottom: 0, left: -8 }}>
                <CartesianGrid vertical={false} {...gridLines} />
                <XAxis
                  dataKey="at"
                  type="number"
                  domain={["dataMin", "dataMax"]}
                  tickFormatter={(t: number) => z.date(new Date(t).toISOString())}
                  minTickGap={60}
                  {...axis}
                />
                <YAxis domain={[60, "auto"]} unit=" %" width={72} {...axis} />
                <ReferenceLine y={80} stroke="var(--stop-fill)" strokeDasharray="6 4" />
                <Tooltip
                  {...tip}
                  labelFormatter={(t) => z.date(new Date(Number(t)).toISOString())}
                  formatter={(v) => `${Math.round(Number(v))} %`}
                />
                {measured.map((p) => {
                  const n = weak.findIndex((w) => w.id === p.id);
                  return (
                    <Line
                      key={p.id}
                      dataKey={p.id}
                      name={p.label}
                      dot={false}
                      connectNulls
                      isAnimationActive={false}
                      stroke="var(--bs-body-color)"
                      strokeOpacity={n < 0 ? 0.28 : 1}
                      strokeWidth={n < 0 ? 1.5 : 2.5}
                      strokeDasharray={n < 0 ? undefined : dashes[n]}
                    />
                  );
                })}
              </LineChart>
            </Plot>
            <ul className="list-unstyled d-flex flex-wrap gap-3 my-2">
              {weak.map((p, n) => (
                <li key={p.id}>
                  <svg className="drawn" width="44" height="12" aria-hidden="true">
                    <path d="M0 6H44" className="ink" strokeWidth={2.5} strokeDasharray={dashes[n]} />
                  </svg>
                  <Link to={`/packs/${p.id}`}>{p.label}</Link> <span className="fig">{p.now} %</span>
                </li>
              ))}
            </ul>
            <p className="soft mb-0">
              The strong lines are the {weak.length} weakest; at 80 % a pack is worn for work that needs all
              of it. {without > 0 && `${without} more were never measured.`}
            </p>
          </Sheet>
        );
      }}
    </QueryView>
  );
}

const dashes = ["0", "10 4", "3 4", "14 4 3 4", "7 7"];

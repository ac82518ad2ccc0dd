import { columns } from "../parts/columns";
import { Table } from "react-bootstrap";
import { useQuery } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { Airframe } from "../drawings/Airframe";
import { Spark } from "../drawings/Spark";
import { VerdictMark, words, worst, type Verdict } from "../parts/Flag";
import { ScrollX } from "../parts/ScrollX";
import { counted } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useZone } from "../parts/time";

type Drift = Schemas["Drift"];

/** Each motor against its sisters over the last flights: warmth, output at hover, and how it felt by hand. */
export function TrendsPanel({ type, aircraft }: { type: Schemas["TypeEntry"]; aircraft: string }) {
  const q = useQuery({
    queryKey: keys.trends(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}/trends", { params: { path: { id: aircraft } } })),
  });
  return (
    <div className="mt-3">
      <Sheet title="Motors over time">
        <QueryView query={q} what="the trends">
          {(t) => <Trends t={t} type={type} />}
        </QueryView>
      </Sheet>
    </div>
  );
}

function Trends({ t, type }: { t: Schemas["Trends"]; type: Schemas["TypeEntry"] }) {
  const z = useZone();
  if (t.flights === 0 || (t.warmth.length < 2 && t.output.length < 2))
    return (
      <Empty>
        {type.motors < 2
          ? "A single motor has no sisters to be held against."
          : "No flight since the motors were fitted. Warmth after landing and output at hover are held against the sisters from eight flights on."}
      </Empty>
    );
  const of = (list: Drift[], n: number) => list.find((d) => d.motor === n);
  const motors = Array.from({ length: type.motors }, (_, i) => i + 1);
  const verdictOf = (n: number): Verdict =>
    worst([of(t.warmth, n), of(t.output, n)].filter((d) => d?.known).map((d) => d!.verdict));
  const most = (list: Drift[], least: number) =>
    Math.max(least, ...list.flatMap((d) => d.deviates.map(Math.abs)));
  const mostWarm = most(t.warmth, 6);
  const mostOut = most(t.output, 3);
  const named = [...t.warmth, ...t.output].filter((d) => d.known && d.verdict !== "clear");
  return (
    <>
      {named.map((d, i) => (
        <p key={i}>
          <VerdictMark verdict={d.verdict} /> {d.sentence} Find out before it fails.
        </p>
      ))}
      <div className="two" style={columns("210px minmax(0, 1fr)")}>
        <Airframe
          type={type}
          plain
          marks={Object.fromEntries(
            motors.map((n) => {
              const v = verdictOf(n);
              return [`motor-${n}`, { verdict: v, label: `Motor ${n}: ${words[v]}` }];
            }),
          )}
          height={200}
          label="Plan of the motors, tinted by their trend"
        />
        <ScrollX label="Motors against their sisters">
          <Table>
            <thead>
              <tr>
                <th>Motor</th>
                <th>Warmth, ±{mostWarm.toFixed(0)} °C</th>
                <th>Output, ±{mostOut.toFixed(0)} points</th>
                <th>By hand</th>
              </tr>
            </thead>
            <tbody>
              {motors.map((n) => {
                const w = of(t.warmth, n);
                const o = of(t.output, n);
                const feel = t.feel.find((f) => f.station === `motor-${n}`);
                return (
                  <tr key={n}>
                    <td className="text-nowrap">
                      {n} <VerdictMark verdict={verdictOf(n)} />
                    </td>
                    <td>{w && <Cell d={w} most={mostWarm} unit="°C" />}</td>
                    <td>{o && <Cell d={o} most={mostOut} unit="" />}</td>
                    <td>
                      {feel
                        ? feel.odd === 0
                          ? `${feel.walks} walks, never odd`
                          : `${feel.odd} of ${feel.walks} odd`
                        : ""}
                      {feel?.last && <div className="soft">{feel.last}</div>}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Table>
        </ScrollX>
      </div>
      {t.notes.length > 0 && (
        <>
          <h3>Vibration noted</h3>
          <ul className="ps-3">
            {t.notes.map((n, i) => (
              <li key={i}>
                {z.both(n.at)}: {n.note || "no more said"} <span className="soft">({n.by})</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="soft mb-0">
        Each against the median of its sisters, over the last {counted(t.flights, "flight")}. Named when the
        median of the last five has moved by more than three robust deviations from before.
      </p>
    </>
  );
}

function Cell({ d, most, unit }: { d: Drift; most: number; unit: string }) {
  return (
    <div className="d-flex gap-2 align-items-center">
      <Spark values={d.deviates} most={most} verdict={d.known ? d.verdict : "clear"} />
      <span className="fig text-nowrap">
        {d.known ? `${d.now >= 0 ? "+" : "−"}${Math.abs(d.now).toFixed(1)} ${unit}` : "too few"}
      </span>
    </div>
  );
}

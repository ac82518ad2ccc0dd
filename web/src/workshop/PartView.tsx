import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { Rope } from "../drawings/Rope";
import { VerdictMark } from "../parts/Flag";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { counted } from "../parts/number";
import { TakeOff, Swap } from "./PartActs";

type Part = Schemas["PartDetail"];

const kindName = (k: string) => k.charAt(0).toUpperCase() + k.slice(1).replace(/-/g, " ");

/** One part: where it is, its life, and everywhere it has been. */
export function PartView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.part(id),
    queryFn: () => ask(api.GET("/parts/{id}", { params: { path: { id } } })),
  });
  return (
    <QueryView query={q} what="the part">
      {(p) => <OnePart p={p} />}
    </QueryView>
  );
}

function OnePart({ p }: { p: Part }) {
  const z = useZone();
  const u = useUnits();
  const may = useMay();
  const [off, setOff] = useState(false);
  const [swap, setSwap] = useState(false);
  return (
    <>
      <ViewHead title={`${kindName(p.kind)} ${p.serial}`}>
        {may("technician") && !p.discarded_at && (
          <>
            <Button variant="outline-primary" onClick={() => setOff(true)}>
              {p.aircraft_id ? "Take it off" : "Discard it"}
            </Button>
            {p.aircraft_id && (
              <Button variant="outline-primary" onClick={() => setSwap(true)}>
                Swap it
              </Button>
            )}
          </>
        )}
      </ViewHead>
      <div className="two">
        <Sheet title="Life" aside={<VerdictMark verdict={p.discarded_at ? "stop" : p.verdict} />}>
          <p>
            {p.discarded_at
              ? `Discarded on ${z.date(p.discarded_at)}: ${p.discarded_why} It must not fly again.`
              : p.due}
          </p>
          {p.fraction > 0 && <Rope used={p.fraction} verdict={p.verdict} label={p.due} />}
          <p className="fig mb-0 mt-2">
            {p.hours.toFixed(1)} h · {counted(p.flights, "flight")} · {counted(p.landings, "landing")}
            {p.litres > 0 && ` · ${u.show("volume", p.litres)}`}
          </p>
        </Sheet>
        <Sheet title="Where it is">
          <p>
            {p.aircraft_id ? (
              <>
                Fitted to <Link to={`/fleet/${p.aircraft_id}?part=${p.station}`}>{p.aircraft}</Link>,{" "}
                {p.station_label}
                {p.fitted_at && `, since ${z.date(p.fitted_at)}`}.
              </>
            ) : p.discarded_at ? (
              "Nowhere: it was discarded."
            ) : (
              "On the shelf."
            )}
          </p>
          <p className="soft mb-0">
            {p.source === "maker" ? "Maker's part" : "Third-party part"} for {p.type_key || "an unknown type"}
            {p.batch && `, batch ${p.batch}`}
            {p.price_cents != null && `, paid ${(p.price_cents / 100).toFixed(2)}`}, known since{" "}
            {z.date(p.since)}.
          </p>
        </Sheet>
      </div>
      <div className="mt-3">
        <Sheet title="Everywhere it has been, newest first">
          {p.moves.length === 0 ? (
            <Empty>It has never been fitted.</Empty>
          ) : (
            <ScrollX label="Everywhere it has been">
              <Table>
                <thead>
                  <tr>
                    <th>Aircraft</th>
                    <th>Position</th>
                    <th>From</th>
                    <th>To</th>
                    <th className="num">Hours</th>
                    <th className="num">Flights</th>
                    <th>By</th>
                  </tr>
                </thead>
                <tbody>
                  {p.moves.map((m, i) => (
                    <tr key={i}>
                      <td>{m.aircraft}</td>
                      <td>{m.station}</td>
                      <td className="fig">{z.date(m.fitted_at)}</td>
                      <td className="fig">
                        {m.removed_at ? `${z.date(m.removed_at)} (${m.removed_to})` : "fitted now"}
                      </td>
                      <td className="num">{m.hours.toFixed(1)}</td>
                      <td className="num">{m.flights}</td>
                      <td>{m.by}</td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            </ScrollX>
          )}
        </Sheet>
      </div>
      {off && <TakeOff p={p} onClose={() => setOff(false)} />}
      {swap && <Swap p={p} onClose={() => setSwap(false)} />}
    </>
  );
}

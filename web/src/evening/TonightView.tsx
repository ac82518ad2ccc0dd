import { columns } from "../parts/columns";
import { Rows } from "../parts/Rows";
import { Explained } from "../parts/Explained";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { ChargeTimeline } from "../drawings/ChargeTimeline";
import { useAddress } from "../parts/address";
import { VerdictMark } from "../parts/Flag";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { weekday } from "../parts/when";
import { serverNow, useZone } from "../parts/time";
import { Waits } from "../outbox/Waits";
import { useEvening } from "./api";
import { DayStep } from "./DayStep";
import { ChargerList } from "./ChargerList";
import { Charged } from "./Charged";
import { DoneTonight } from "./DoneTonight";
import { Flying } from "./Flying";
import { GearList } from "./GearList";
import { Tick } from "./Tick";

type Evening = Schemas["Evening"];

/** The evening before a day of flying: what to charge, on what, ready by when; what to bring down; what gear to check. */
export function TonightView() {
  const z = useZone();
  const [params, set] = useAddress();
  const tomorrow = z.date(new Date(serverNow() + 86_400_000).toISOString());
  const day = params.get("day") ?? tomorrow;
  const { query, about } = useEvening(day);
  return (
    <>
      <ViewHead title={`Tonight, for ${weekday(day)} ${day}`}>
        <DayStep day={day} onChange={(d) => set({ day: d === tomorrow ? "" : d })} />
        <Button variant="outline-primary" className="d-print-none" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      <Waits about={about} />
      <QueryView query={query} what="the evening">
        {(e) => <Plan key={`${e.day}-${e.saved}`} e={e} />}
      </QueryView>
    </>
  );
}

function Plan({ e }: { e: Evening }) {
  const z = useZone();
  const p = e.plan;
  const flying = e.flying.some((f) => f.sorties > 0);
  return (
    <div className="two" style={columns("minmax(0, 2fr) minmax(0, 3fr)")}>
      <div className="vstack gap-3">
        <Flying e={e} />
        <ChargerList e={e} />
      </div>
      <div className="vstack gap-3">
        <Sheet
          title="Charging"
          aside={
            flying ? (
              <span className="d-flex gap-3 align-items-baseline flex-wrap">
                <VerdictMark verdict={p.verdict} />
                {p.done_at && <span className="fig">done {z.time(p.done_at)}</span>}
                <span className="fig">ready by {z.time(e.ready_by)}</span>
              </span>
            ) : undefined
          }
        >
          {!flying && <Empty>Say on the left what flies; the plan follows at once.</Empty>}
          {p.findings.map((f, i) => (
            <p key={i} className="mb-1">
              <VerdictMark verdict={f.verdict} /> <Explained text={f.sentence} />
            </p>
          ))}
          {p.charge.length > 0 && (
            <ChargeTimeline jobs={p.charge} start={e.start_at} readyBy={e.ready_by} time={z.time} />
          )}
          <Rows cols="34px minmax(0, 1fr)" always>
            {p.charge.map((j, n) => (
              <Tick key={j.pack_id} e={e} item={`charge:${j.pack_id}`} label={`Charge ${j.label}`}>
                {n + 1}. <Link to={`/packs/${j.pack_id}`}>{j.label}</Link> for {j.for}: {j.charger}, channel{" "}
                {j.channel}, {j.from_percent == null ? "level not known" : `${Math.round(j.from_percent)} %`}{" "}
                to {j.to_percent} %,{" "}
                <span className="fig">
                  {z.time(j.start)}–{z.time(j.end)}
                </span>
                {(j.state === "charging" || e.ticks.some((t) => t.item === `charge:${j.pack_id}`)) && (
                  <Charged e={e} pack={j.pack_id} label={j.label} />
                )}
              </Tick>
            ))}
            {p.ready.map((r) => (
              <Tick key={r.pack_id} e={e} item={`ready:${r.pack_id}`} label={`Packed: ${r.label}`}>
                <Link to={`/packs/${r.pack_id}`}>{r.label}</Link> for {r.for}: charged already; look at all
                six faces and pack it
              </Tick>
            ))}
          </Rows>
          <p className="soft mb-0">
            Constant power to 80 %, then falling to a fifth at full; 8 % lost. Never leave packs charging
            alone; on a surface that does not burn, extinguisher at hand. The maker&rsquo;s manual decides.
          </p>
        </Sheet>
        <Sheet title="Down to storage level">
          {p.lower.length === 0 && <p className="m-0">Nothing: no charged pack is left over.</p>}
          <Rows cols="34px minmax(0, 1fr)" always>
            {p.lower.map((l) => (
              <Tick key={l.pack_id} e={e} item={`lower:${l.pack_id}`} label={`Bring down ${l.label}`}>
                <Link to={`/packs/${l.pack_id}`}>{l.label}</Link>:{" "}
                {l.verdict !== "clear" && <VerdictMark verdict={l.verdict} />} {l.why}
              </Tick>
            ))}
          </Rows>
        </Sheet>
        <DoneTonight e={e} />
        <GearList e={e} />
      </div>
    </div>
  );
}

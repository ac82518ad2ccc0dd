import { Form } from "react-bootstrap";
import { Explained } from "../../parts/Explained";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask, type Schemas } from "../../api/client";
import { keys } from "../../api/keys";
import { useMay } from "../../parts/session";
import { VerdictMark } from "../../parts/Flag";
import { Sheet } from "../../parts/Sheet";
import { Empty, QueryView } from "../../parts/states";
import { useUnits } from "../../parts/units";
import { LearnedPlot } from "./LearnedPlot";
import { MassPlan } from "./MassPlan";
import { leftOut } from "./model";
import { OnBoard } from "./OnBoard";
import { Weigh } from "./Weigh";

/** What an aircraft takes, learned from its flights, and how its mass lies. */
export function EnergyLeaf({ d }: { d: Schemas["AircraftDetail"] }) {
  const [liquid, setLiquid] = useState(d.type.profile.tank_l ?? 0);
  const [more, setMore] = useState({ payload_kg: 0, attached_kg: 0 });
  const ask_ = { liquid_l: liquid, ...more };
  const q = useQuery({
    queryKey: keys.energy(d.aircraft.id, ask_),
    queryFn: () =>
      ask(api.GET("/aircraft/{id}/energy", { params: { path: { id: d.aircraft.id }, query: ask_ } })),
    placeholderData: (x) => x,
  });
  return (
    <QueryView query={q} what="the energy of this aircraft">
      {(e) => (
        <div className="two">
          <Efficiency e={e} />
          <Balance e={e} d={d} liquid={liquid} onLiquid={setLiquid} onMore={setMore} />
        </div>
      )}
    </QueryView>
  );
}

function Efficiency({ e }: { e: Schemas["AircraftEnergy"] }) {
  const l = e.learned;
  const left = leftOut(e.flights);
  return (
    <Sheet title="Efficiency, from its flights">
      <p>
        {l.own ? (
          <>
            <span className="fig">{(l.efficiency * 100).toFixed(1)} %</span> of its own, half of{" "}
            <span className="fig">{l.count}</span> flights within {(l.spread * 100).toFixed(1)}; the type says{" "}
            {(e.type_efficiency * 100).toFixed(0)} %.
          </>
        ) : (
          <>
            {(e.type_efficiency * 100).toFixed(0)} % as the type says: {l.count} of 5 flights that say
            something.
          </>
        )}
      </p>
      {e.flights.length === 0 ? <Empty>It has not flown yet.</Empty> : <LearnedPlot flights={e.flights} />}
      {left.length > 0 && (
        <p className="soft mb-0">Left out: {left.map(([why, n]) => `${n} for ${why}`).join(", ")}.</p>
      )}
      <Drifting title="Packs against those they fly with" all={e.packs} />
      <Drifting title="Motors against the others, at hover" all={e.motors} />
      {e.assumed.length > 0 && (
        <p className="soft mb-0">Not in the type&rsquo;s file: {e.assumed.join(", ")}.</p>
      )}
    </Sheet>
  );
}

interface DriftingProps {
  title: string;
  all: { known: boolean; verdict: Schemas["Verdict"]; sentence: string }[];
}

/** Who drifts away from its sisters, by name; else that none does. */
function Drifting({ title, all }: DriftingProps) {
  const known = all.filter((x) => x.known);
  const odd = known.filter((x) => x.verdict !== "clear");
  if (all.length === 0) return null;
  return (
    <>
      <h3>{title}</h3>
      {odd.map((x) => (
        <p key={x.sentence} className={`judged ${x.verdict} mb-1`}>
          <VerdictMark verdict={x.verdict} /> <Explained text={x.sentence} />
        </p>
      ))}
      {odd.length === 0 && (
        <p className="soft mb-2">
          {known.length > 0
            ? `${known.length} of ${all.length} followed, none drifts.`
            : "Too few flights to follow any of them yet."}
        </p>
      )}
    </>
  );
}

interface BalanceProps {
  e: Schemas["AircraftEnergy"];
  d: Schemas["AircraftDetail"];
  liquid: number;
  onLiquid: (kg: number) => void;
  onMore: (kg: { payload_kg: number; attached_kg: number }) => void;
}

function Balance({ e, d, liquid, onLiquid, onMore }: BalanceProps) {
  const u = useUnits();
  const may = useMay()("pilot", "technician", "chief");
  const tank = d.type.profile.tank_l ?? 0;
  return (
    <Sheet title="Mass and balance">
      {tank > 0 && (
        <label className="d-block">
          In the tank: {u.show("mass", liquid)}
          <Form.Range
            className="tap"
            min={0}
            max={tank}
            step={tank / 60}
            value={liquid}
            onChange={(x) => onLiquid(Number(x.target.value))}
          />
        </label>
      )}
      {e.balance && <OnBoard onMore={onMore} />}
      {e.balance && e.items ? (
        <MassPlan b={e.balance} items={e.items} type={d.type} />
      ) : (
        <Empty>What this type weighs, and where, is not in its file. A chief adds it under balance.</Empty>
      )}
      <Weigh aircraft={d.aircraft.id} weighed={e.weighed} may={may} />
      {d.aircraft.mass_kg != null && (
        <p className="soft mb-0">
          Weighed {u.show("mass", d.aircraft.mass_kg)} for take-off
          {d.aircraft.weighed_on && ` on ${d.aircraft.weighed_on}`}.
        </p>
      )}
    </Sheet>
  );
}

import type { Schemas } from "../../api/client";
import { counted } from "../../parts/number";
import { Fold } from "../../parts/Fold";
import { useUnits } from "../../parts/units";
import { HomeTable } from "./HomeTable";

/** The energy of the flight at the gate, and the call-outs of the way home. */
export function GateEnergy({ e }: { e?: Schemas["EnergyAnswer"] }) {
  const u = useUnits();
  if (!e) return null;
  return (
    <Fold
      summary={`Energy: needs ${Math.round(e.need_wh)} of ${Math.round(e.usable_wh)} Wh over ${e.land_by_percent} %`}
      open={false}
    >
      <p className="mb-1">
        About {Math.floor(e.minutes)} min in cruise; out and back against the wind to{" "}
        {u.show("length", e.radius_m)}; the farthest place is {u.show("length", e.far_m)} away.
      </p>
      <p className="mb-1">To come home the packs must show, by distance:</p>
      <HomeTable home={e.home} />
      <p className="soft mb-0">
        {e.own
          ? `Efficiency of this aircraft's own, ${(e.own.efficiency * 100).toFixed(0)} % from ${counted(e.own.count, "flight")}.`
          : "Efficiency of the type; five measured flights give the aircraft its own."}
        {e.assumed.length > 0 && ` Assumed: ${e.assumed.join("; ")}.`}
      </p>
    </Fold>
  );
}

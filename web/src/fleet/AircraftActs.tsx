import type { Schemas } from "../api/client";
import { useAddress } from "../parts/address";
import { FitParts } from "./FitParts";
import { GroundAircraft, ReturnAircraft } from "./acts";
import { EditAircraft } from "./EditAircraft";
import type { AircraftAct } from "./model";
import { RaiseDefect } from "../workshop/RaiseDefect";
import { ReportIncident } from "./ReportIncident";

/** The dialogs of what can be done with an aircraft; the address says which one is open. */
export function AircraftActs({ d, onClose }: { d: Schemas["AircraftDetail"]; onClose: () => void }) {
  const [params] = useAddress();
  const act = (params.get("act") as AircraftAct | null) ?? (params.get("fit") ? "fit" : null);
  const position = d.type.positions.find((p) => p.id === params.get("part"));
  const station = params.get("station") ?? position?.station ?? "frame";
  const propellers = d.type.positions.filter((p) => p.kind === "propeller").map((p) => p.id);
  const fitting = params.get("fitting") ?? "";
  const a = d.aircraft;
  return (
    <>
      <GroundAircraft open={act === "ground"} onClose={onClose} d={d} />
      <ReturnAircraft open={act === "return"} onClose={onClose} d={d} />
      <FitParts
        key={fitting}
        open={act === "fit"}
        onClose={onClose}
        d={d}
        positions={fitting ? [fitting] : propellers}
      />
      <ReportIncident open={act === "incident"} onClose={onClose} d={d} />
      <RaiseDefect
        open={act === "defect"}
        onClose={onClose}
        aircraft={a.id}
        stations={d.type.stations}
        station={station}
      />
      {act === "edit" && <EditAircraft onClose={onClose} a={a} />}
    </>
  );
}

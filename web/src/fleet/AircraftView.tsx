import { useParams } from "react-router";
import type { Schemas } from "../api/client";
import { useAbout } from "../outbox/hooks";
import { Waits } from "../outbox/Waits";
import { useAddress } from "../parts/address";
import { QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { CompassPanel } from "../practice/CompassPanel";
import { ChecksLeaf } from "../spraying/ChecksLeaf";
import { EnergyLeaf } from "../flights/energy/EnergyLeaf";
import { useAircraft } from "./api";
import { AircraftActs } from "./AircraftActs";
import { AircraftHead } from "./AircraftHead";
import { AircraftNow } from "./AircraftNow";
import { FirmwarePanel } from "./FirmwarePanel";
import { PartsTable } from "./PartsTable";
import { TrendsPanel } from "./TrendsPanel";

/** One aircraft: what is against it now, its parts, its trends, how it is set. */
export function AircraftView() {
  const { id = "" } = useParams();
  const q = useAircraft(id);
  return (
    <QueryView query={q} what="the aircraft">
      {(d) => <Aircraft d={d} />}
    </QueryView>
  );
}

function Aircraft({ d }: { d: Schemas["AircraftDetail"] }) {
  const [params, change] = useAddress();
  const raised = useAbout(d.aircraft.id); // defects that wait on this device
  const a = d.aircraft;
  const tab = params.get("tab") ?? "now";
  const set = (to: Record<string, string>) => change({ fit: "", ...to });
  return (
    <>
      <AircraftHead a={a} onAct={(act) => set({ act })} />
      <Tabs
        label={`What to see of ${a.name}`}
        tabs={[
          { key: "now", name: "Now" },
          { key: "parts", name: "Parts", count: d.parts.length },
          { key: "energy", name: "Energy and mass" },
          { key: "trends", name: "Motors over time" },
          { key: "set", name: "Compass and firmware" },
          ...((d.type.profile.tank_l ?? 0) > 0 ? [{ key: "spray", name: "Spray system" }] : []),
        ]}
      />
      <Waits about={raised} />
      {tab === "now" && <AircraftNow d={d} set={set} />}
      {tab === "parts" && <PartsTable d={d} onChoose={(p) => set({ part: p, station: "", tab: "" })} />}
      {tab === "energy" && <EnergyLeaf d={d} />}
      {tab === "trends" && <TrendsPanel type={d.type} aircraft={a.id} />}
      {tab === "set" && (
        <>
          <CompassPanel d={d} />
          <FirmwarePanel aircraft={a.id} typeKey={d.type.profile.key} />
        </>
      )}
      {tab === "spray" && <ChecksLeaf aircraft={a.id} />}
      <AircraftActs d={d} onClose={() => set({ act: "" })} />
    </>
  );
}

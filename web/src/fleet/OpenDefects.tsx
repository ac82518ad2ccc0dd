import { Photos } from "../parts/Photos";
import type { Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { useZone } from "../parts/time";
import { DefectDecision } from "../workshop/Defects";

/** The open defects of an aircraft, each with what may be decided about it. */
export function OpenDefects({ d, chosen }: { d: Schemas["AircraftDetail"]; chosen?: string }) {
  const z = useZone();
  return (
    <Sheet title="Open defects">
      {d.defects.length === 0 && <p className="m-0 soft">None.</p>}
      {d.defects.map((x) => (
        <div key={x.id} className={x.id === chosen ? "judged watch mb-2" : "mb-2"}>
          <div className="d-flex justify-content-between gap-2">
            <strong>{x.title}</strong>
            <VerdictMark verdict={x.severity} />
          </div>
          {x.note && <div>{x.note}</div>}
          <Photos ids={x.photos} alt={() => `Photo of: ${x.title}`} />
          <div className="soft">
            {d.type.stations.find((s) => s.id === x.station)?.label} · {x.raised_by}, {z.both(x.raised_at)}
          </div>
          <DefectDecision d={x} />
        </div>
      ))}
    </Sheet>
  );
}

import { useTypes } from "../api/queries";
import { Airframe } from "../drawings/Airframe";
import { type StationMark } from "../drawings/AirframeStation";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { verdicts } from "./samples";

/** Every type, with stations in every state. */
export function AirframePieces() {
  const types = useTypes();
  return (
    <>
      <h2 className="mt-4">Airframes</h2>
      <QueryView query={types} what="the types">
        {(d) => (
          <div className="two">
            {d.types.map((t) => {
              const marks: Record<string, StationMark> = Object.fromEntries(
                t.stations.map((s, i) => [
                  s.id,
                  { verdict: verdicts[i % 7 === 2 ? 1 : i % 11 === 4 ? 2 : 0], label: s.label },
                ]),
              );
              return (
                <Sheet key={t.profile.key} title={t.profile.name}>
                  <Airframe
                    type={t}
                    marks={marks}
                    height={330}
                    label={`Plan of ${t.profile.name} with stations in every state`}
                  />
                </Sheet>
              );
            })}
          </div>
        )}
      </QueryView>
    </>
  );
}

import type { Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";

/** The verdict on an entry, against what; or what is wrong with it. */
export function Judged({ judged, wrong }: { judged?: Schemas["Judgement"]; wrong?: string }) {
  if (wrong)
    return (
      <div className="judged stop" role="alert">
        {wrong}
      </div>
    );
  if (!judged)
    return (
      <div className="judged d-none d-lg-block" role="status">
        The verdict appears as soon as there is an entry.
      </div>
    );
  return (
    <div className={`judged ${judged.verdict}`} role="status">
      <VerdictMark verdict={judged.verdict} /> {judged.sentence}
      <div className="soft">Against: {judged.against}</div>
    </div>
  );
}

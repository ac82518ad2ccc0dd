import type { Answer } from "../judge/judge";
import { useNow, useZone } from "../parts/time";
import { Judged } from "./Judged";
import type { Offer } from "./model";

const sources: Record<string, string> = {
  charger: "by the charger",
  hand: "by hand",
  file: "from the charger's file",
  walkround: "on a walk",
  link: "by the aircraft",
};

/** What is known already, with its age and what it means. */
export function Offered({ o, judged }: { o: Offer; judged: Answer }) {
  const zone = useZone();
  const minutes = Math.max(0, Math.round((useNow() - Date.parse(o.at)) / 60_000));
  const age = minutes < 90 ? `${minutes} min` : `${Math.round(minutes / 60)} h`;
  return (
    <div className="offered" role="status">
      <p className="mb-1">
        Read {zone.time(o.at)} {sources[o.source] ?? `from ${o.source}`}, {age} ago:{" "}
        <strong>{o.words}</strong>. Still so? Else read it anew.
      </p>
      <Judged judged={judged.judgement} wrong={judged.sentence} />
    </div>
  );
}

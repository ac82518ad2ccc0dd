import type { Answer } from "../judge/judge";
import { useNow, useZone } from "../parts/time";
import { AreaField } from "../parts/Field";
import { Judged } from "./Judged";
import type { Offer } from "./model";

const sources: Record<string, string> = {
  charger: "by the charger",
  hand: "by hand",
  file: "from the charger's file",
  walkround: "on a walk",
  link: "by the aircraft",
};

interface OfferedProps {
  o: Offer;
  judged: Answer;
  /** What was seen; asked where it is not in order. */
  note: string;
  onNote: (note: string) => void;
}

/** What is known already, with its age and what it means. */
export function Offered({ o, judged, note, onNote }: OfferedProps) {
  const zone = useZone();
  const minutes = Math.max(0, Math.round((useNow() - Date.parse(o.at)) / 60_000));
  const age = minutes < 90 ? `${minutes} min` : `${Math.round(minutes / 60)} h`;
  return (
    <div className="border-top border-2 border-primary pt-2" role="status">
      <p className="mb-1">
        Read {zone.time(o.at)} {sources[o.source] ?? `from ${o.source}`}, {age} ago:{" "}
        <strong>{o.words}</strong>. Still so? Else read it anew.
      </p>
      {(judged.sentence || note) && (
        <AreaField label="What you saw" value={note} onChange={(e) => onNote(e.target.value)} />
      )}
      <Judged judged={judged.judgement} wrong={judged.sentence} />
    </div>
  );
}

import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { Flag } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";

export interface TakenProps {
  t: Schemas["PicturesTaken"];
  survey: boolean;
  /** Takes the pictures over by so many minutes. */
  onClock?: (minutes: number) => void;
}

/** What the pictures of a flight show: how many, where they are missing, how often the ground was seen. */
export function Taken({ t, survey, onClock }: TakenProps) {
  return (
    <Sheet title={`${t.count} of ${t.planned} pictures`}>
      {t.findings.length === 0 && <p className="judged clear">Nothing is missing.</p>}
      {t.findings.map((b, i) => (
        <div key={i} className={`judged ${b.verdict}`}>
          <Flag verdict={b.verdict} /> {b.sentence}
          {b.wish === "offset_min" && b.nearest != null && onClock && (
            <Button variant="outline-primary" className="ms-2" onClick={() => onClock(b.nearest!)}>
              Take them over by {b.nearest} min
            </Button>
          )}
        </div>
      ))}
      <p className="mb-0 mt-2">
        {t.placed} carry a place, {t.on_lines} of them where one was planned.
        {survey &&
          ` Over the whole area a place lies in ${t.least} pictures at least; ${t.views} were wanted. ${t.thin_ha.toFixed(2)} ha lie in fewer by this flight.`}
      </p>
    </Sheet>
  );
}

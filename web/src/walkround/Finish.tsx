import type { ReactNode } from "react";
import { Button } from "react-bootstrap";
import { VerdictMark } from "../parts/Flag";
import { Found } from "./Found";
import { LeftOut } from "./LeftOut";
import { found, secondWanted, verdictOf, type RunSeen } from "./model";
import { Thumb } from "../parts/Thumb";

/** Everything is entered: what was found, and the end of the walk. */
export function Finish({ w, onComplete, above }: { w: RunSeen; onComplete: () => void; above: ReactNode }) {
  const verdict = verdictOf(w);
  const second = secondWanted(w);
  if (second.length > 0)
    return (
      <div className="d-flex flex-column d-lg-block">
        <h2>A second person says {second.length === 1 ? "this one" : "these"} too</h2>
        <ul>
          {second.map((it) => (
            <li key={it.id}>{it.title}</li>
          ))}
        </ul>
        <p>
          Call and response: another one of the crew opens this walk on their own device, or signs in here.
        </p>
        <Thumb>{above}</Thumb>
      </div>
    );
  return (
    <div className="d-flex flex-column d-lg-block">
      <h2>Every item has an entry</h2>
      {/* As high with a verdict as without: the key below stays where it is when the answer comes. */}
      <div style={{ minHeight: "3.4rem" }}>
        {verdict ? (
          <VerdictMark verdict={verdict} big />
        ) : (
          <p className="mb-0">
            Some entries are judged when the server answers; until then it is not known whether it may fly.
          </p>
        )}
      </div>
      {found(w).length === 0 && <p>Nothing was found.</p>}
      <Found w={w} />
      <LeftOut w={w} />
      <p className="soft">
        Completing puts all entries on record under your name. They do not change afterwards.
      </p>
      <Thumb>
        {above}
        <Button className="btn-big" onClick={onComplete}>
          Complete the {w.title.toLowerCase()}
        </Button>
      </Thumb>
    </div>
  );
}

import { Rows } from "../parts/Rows";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { useMay } from "../parts/session";
import { useAbout } from "../outbox/hooks";
import { Waits } from "../outbox/Waits";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { useChecks } from "./api";
import { CatchPlot } from "./CatchPlot";
import { CheckDialog } from "./CheckDialog";
import { guides, type Kind } from "./checks";
import { checksThing } from "./presses";

/** The calibrations of what sprays: what holds now, and each with its record. */
export function ChecksLeaf({ aircraft }: { aircraft: string }) {
  const q = useChecks(aircraft);
  const z = useZone();
  const may = useMay()("pilot", "crew", "technician");
  const [kind, setKind] = useState<Kind>();
  const about = useAbout(checksThing(aircraft));
  return (
    <QueryView query={q} what="the calibrations">
      {(d) => {
        const newest = d.checks.find((c) => c.kind === "catch");
        return (
          <div className="vstack gap-3">
            <Waits about={about} />
            <Sheet title="What holds">
              <Rows cols="110px minmax(0, 1fr) minmax(0, 1.2fr)">
                {d.standing.map((s) => (
                  <ListGroup.Item as="li" key={s.kind}>
                    <VerdictMark verdict={s.verdict} />
                    <span>{s.sentence}</span>
                    {may && (
                      <Button
                        variant="outline-primary"
                        className="d-print-none"
                        onClick={() => setKind(s.kind as Kind)}
                      >
                        {guides[s.kind as Kind].look ? "Looked at" : "Calibrate"}
                      </Button>
                    )}
                  </ListGroup.Item>
                ))}
              </Rows>
            </Sheet>
            {newest?.input.caught && (
              <Sheet title="Newest catch test">
                <CatchPlot caught={newest.input.caught} target={newest.input.target ?? 0} />
                <p className="mb-0">{newest.sentence}</p>
              </Sheet>
            )}
            {d.checks.length > 0 && (
              <Sheet title="On record">
                <Rows cols="110px minmax(0, 1fr) minmax(0, 1.2fr)">
                  {d.checks.map((c) => (
                    <ListGroup.Item as="li" key={c.id}>
                      <VerdictMark verdict={c.verdict} />
                      <span>
                        {guides[c.kind].name}: {c.sentence} {c.input.note}
                      </span>
                      <span className="soft">
                        {z.both(c.at)}, {c.by}
                      </span>
                    </ListGroup.Item>
                  ))}
                </Rows>
              </Sheet>
            )}
            {kind && (
              <CheckDialog key={kind} kind={kind} aircraft={aircraft} onClose={() => setKind(undefined)} />
            )}
          </div>
        );
      }}
    </QueryView>
  );
}

import { Button, Col, Row } from "react-bootstrap";
import { clock, eventWords, landingCalls, type Flight } from "./model";

/** What is called when: the pack, the planned end, what calls the landing, and what was logged. */
export function CallOuts({ f, t, onCalled }: { f: Flight; t: number; onCalled: () => void }) {
  const standing = f.events.filter((e) => e.taken_back_by === undefined);
  const calls = standing.filter((e) => e.kind === "call-out").length;
  const logged = standing.filter((e) => e.kind !== "call-out");
  const nextCall = (calls + 1) * f.type.profile.packs.call_out_every_s;
  const minutes = f.type.profile.limits.planned_minutes;
  const landBy = minutes * 60;
  const lands = landingCalls(f.type);
  return (
    <Row xs={2} lg={4} className="callouts g-0 border-top border-2 border-primary py-2 mb-2">
      <Col className={t >= nextCall ? "bg-warning-subtle border border-2 border-warning-subtle px-1" : ""}>
        <div>{t >= nextCall ? "Call the pack now" : "Next pack call in"}</div>
        <div className="fig fs-1 fw-semibold lh-sm">{clock(Math.abs(nextCall - t))}</div>
        <Button variant="outline-primary" onClick={onCalled}>
          Called
        </Button>
      </Col>
      <Col className={t >= landBy ? "bg-warning-subtle border border-2 border-warning-subtle px-1" : ""}>
        <div>{t >= landBy ? "Over the planned time by" : "Planned time left"}</div>
        <div className="fig fs-1 fw-semibold lh-sm">{clock(Math.abs(landBy - t))}</div>
        <div className="soft">of {minutes} min</div>
      </Col>
      <Col>
        <div>Land by, whichever comes first</div>
        <div className="fig fs-1 fw-semibold lh-sm">{lands.first}</div>
        <div className="soft">{lands.then}</div>
      </Col>
      <Col>
        <div>Logged</div>
        <div className="fig fs-1 fw-semibold lh-sm">{logged.length}</div>
        <div className="soft">
          {logged
            .slice(-3)
            .map((e) => eventWords[e.kind])
            .join(", ")}
        </div>
      </Col>
    </Row>
  );
}

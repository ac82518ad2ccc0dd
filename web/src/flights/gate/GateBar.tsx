import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { VerdictMark } from "../../parts/Flag";
import { comeBack } from "../../parts/back";
import { counted } from "../../parts/number";
import { remedyPath, remedyWords } from "../../parts/remedy";
import type { GateProps } from "./GateView";
import { atHand, gateBack } from "./Findings";
import { byLifter } from "./model";
import { releaseForm, type Signing } from "./useSign";
import { Thumb } from "../../parts/Thumb";

/** At the foot: the verdict, and the one thing to do next; the signature when nothing stops the flight. */
export function GateBar({ g, s, pilot }: Pick<GateProps, "g"> & { s: Signing; pilot: boolean }) {
  const o = g.output;
  const stops = o.findings.filter((f) => f.verdict === "stop");
  const first = byLifter(stops)[0]?.findings[0];
  const act = first?.remedy && atHand[first.remedy.kind];
  const to = first?.remedy && remedyPath(first.remedy, g.aircraft.id);
  return (
    <Thumb>
      {s.sentence && (
        <div className="judged stop" role="alert">
          {s.sentence}
        </div>
      )}
      <div className="d-flex gap-2 align-items-center">
        <span className="flex-grow-1">
          <VerdictMark verdict={o.verdict} />{" "}
          <span className="soft">
            {stops.length > 0
              ? `${counted(stops.length, "reason")}`
              : o.findings.length > 0
                ? counted(o.findings.length, "finding")
                : "nothing against it"}
          </span>
        </span>
        {!s.stopped && pilot && (
          <Button type="submit" form={releaseForm} className="btn-big" disabled={!s.ready}>
            {s.busy ? "Signing…" : "Sign and release"}
          </Button>
        )}
        {first?.remedy && act && (
          <Button variant="outline-primary" className="btn-big" onClick={act}>
            {remedyWords(first.remedy)}
          </Button>
        )}
        {first?.remedy && !act && to && (
          <Link
            className="btn btn-outline-primary btn-big"
            to={to}
            onClick={() => comeBack(gateBack(g.aircraft))}
          >
            {remedyWords(first.remedy)}
          </Link>
        )}
      </div>
    </Thumb>
  );
}

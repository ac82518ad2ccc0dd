import { Button } from "react-bootstrap";
import { Notice } from "./Notice";
import { Explained } from "./Explained";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Flag, words } from "./Flag";
import { useAge } from "./time";
import { remedyPath, remedyWords } from "./remedy";
import { comeBack, type Back } from "./back";

export interface HoistProps {
  findings: Schemas["Finding"][];
  aircraft: string;
  /** What to do about a remedy that is on this very page. */
  here?: Partial<Record<string, () => void>>;
  /** Where the way to a remedy leads back to. */
  back?: Back;
  /** Asks for a decision that a finding offers; without it none is offered here. */
  decide?: (kind: Schemas["DecisionKind"], f: Schemas["Finding"]) => void;
}

/** A stay with one flag per finding, worst at the top, each with its evidence and the way to its remedy. */
export function Hoist({ findings, aircraft, here, back, decide }: HoistProps) {
  const age = useAge();
  return (
    <ul className="hoist">
      {findings.map((f, i) => {
        const to = f.remedy ? remedyPath(f.remedy, aircraft) : undefined;
        const act = f.remedy && here?.[f.remedy.kind];
        return (
          <li key={i}>
            <Flag verdict={f.verdict} />
            <div className="said">
              <span className="visually-hidden">{words[f.verdict]}: </span>
              <Explained text={f.sentence} />
              <div className="soft">{evidence(f, age)}</div>
              {f.asks && f.asks.length > 1 && (
                <details>
                  <summary className="tap py-2">Which questions</summary>
                  <ol>
                    {f.asks.map((q) => (
                      <li key={q}>{q}</li>
                    ))}
                  </ol>
                </details>
              )}
              {decide &&
                f.verdict === "stop" &&
                f.decide?.map((k) => (
                  <Button
                    key={k}
                    variant="outline-primary"
                    size="sm"
                    className="mt-1 me-2"
                    onClick={() => decide(k, f)}
                  >
                    {decisionWords[k]}
                  </Button>
                ))}
              {f.remedy &&
                !(decide && f.decide?.length) &&
                (act ? (
                  <Button variant="outline-primary" size="sm" className="mt-1" onClick={act}>
                    {remedyWords(f.remedy)}
                  </Button>
                ) : (
                  to && (
                    <Link
                      className="btn btn-outline-primary btn-sm mt-1"
                      to={to}
                      onClick={() => back && comeBack(back)}
                    >
                      {remedyWords(f.remedy)}
                    </Link>
                  )
                ))}
            </div>
          </li>
        );
      })}
    </ul>
  );
}

/** What a named person may decide about a finding. */
export const decisionWords: Record<Schemas["DecisionKind"], string> = {
  "by-hand": "Fly by hand to the start",
  "hold-and-look": "Hold at the start and look",
  "way-round": "Take the way round",
  "other-place": "Take off elsewhere",
  "set-return": "Set the return height",
  "level-ground": "The ground was looked at",
};

/** What ends soon: beside a verdict, never part of it. */
export function Notices({ notices }: { notices: Schemas["Finding"][] }) {
  if (notices.length === 0) return null;
  return (
    <Notice role="region" label="Coming up" className="flex-column gap-0 mb-3">
      <h3>Coming up</h3>
      <ul className="ps-3">
        {notices.map((n) => (
          <li key={n.sentence}>{n.sentence}</li>
        ))}
      </ul>
    </Notice>
  );
}

function evidence(f: Schemas["Finding"], age: (iso: string) => string): string {
  const known = f.evidence.replace(/\.$/, "") + (f.at ? `, ${age(f.at)}` : "");
  return [f.source, known, f.lifts ? `lifted by ${f.lifts}` : ""].filter(Boolean).join(" · ");
}

/** The same stay without words, for small places; the words are in its label. */
export function HoistMini({ findings }: { findings: Schemas["Finding"][] }) {
  const stops = findings.filter((f) => f.verdict === "stop").length;
  const watches = findings.filter((f) => f.verdict === "watch").length;
  return (
    <span
      className="d-inline-flex flex-column gap-1 border-start border-2 border-primary"
      role="img"
      aria-label={`${stops} stop, ${watches} watch`}
    >
      {findings.slice(0, 6).map((f, i) => (
        <Flag key={i} verdict={f.verdict} size={12} />
      ))}
      {findings.length === 0 && <Flag verdict="clear" size={12} />}
    </span>
  );
}

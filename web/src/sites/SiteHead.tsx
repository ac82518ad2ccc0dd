import { Button } from "react-bootstrap";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";
import { ViewHead } from "../parts/Sheet";
import { SiteForm } from "./SiteForm";

interface HeadProps {
  s: Schemas["Site"];
  may: boolean;
  of: Record<string, { verdict: Schemas["Verdict"] } | undefined>;
}

/** The name of the site, and how each part of it is judged. */
export function Head({ s, may, of }: HeadProps) {
  const [change, setChange] = useState(false);
  return (
    <ViewHead title={s.head.name}>
      {Object.entries(of).map(
        ([words, x]) =>
          x && (
            <span key={words} className="d-flex gap-2 align-items-center">
              {words} <VerdictMark verdict={x.verdict} />
            </span>
          ),
      )}
      <span className="d-flex gap-2 d-print-none">
        {may && (
          <Button variant="outline-primary" onClick={() => setChange(true)}>
            Change
          </Button>
        )}
        <Button variant="outline-primary" onClick={() => print()}>
          Print
        </Button>
      </span>
      <SiteForm
        key={s.head.version}
        head={s.head}
        open={change}
        onClose={() => setChange(false)}
        onSaved={() => setChange(false)}
      />
    </ViewHead>
  );
}

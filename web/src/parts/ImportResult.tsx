import type { Schemas } from "../api/client";

export interface ImportResultProps {
  report: Schemas["ImportReport"];
  /** What was brought in, like "flights". */
  what: string;
}

/** What became of a file: how much was taken, how much was here already, and each line that was refused. */
export function ImportResult({ report, what }: ImportResultProps) {
  return (
    <div role="status" className="mt-2">
      {report.accepted} {report.accepted === 1 ? what.replace(/s$/, "") : what} taken, {report.unchanged}{" "}
      {report.unchanged === 1 ? "was" : "were"} here already, {report.refused.length} refused.
      {report.refused.length > 0 && (
        <ul className="mb-0">
          {report.refused.slice(0, 100).map((r, i) => (
            <li key={i}>{r.sentence}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

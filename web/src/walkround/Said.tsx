import { VerdictMark } from "../parts/Flag";
import type { Seen } from "./model";

/** What other people said about an item. */
export function Said({ entry, me }: { entry: Seen; me: string }) {
  const first =
    entry.by !== me && entry.judgement
      ? [
          {
            by: entry.by,
            verdict: entry.judgement.verdict,
            sentence: entry.value.note || entry.judgement.sentence,
          },
        ]
      : [];
  const said = [...first, ...entry.others.filter((o) => o.by !== me)];
  if (said.length === 0) return null;
  return (
    <div className="mb-2">
      {said.map((o) => (
        <p key={o.by + o.sentence} className="mb-1">
          <VerdictMark verdict={o.verdict} /> {o.by}: {o.sentence}
        </p>
      ))}
      <p className="soft mb-0">The worse of what was said counts.</p>
    </div>
  );
}

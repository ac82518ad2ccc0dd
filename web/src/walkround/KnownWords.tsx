import { VerdictMark } from "../parts/Flag";
import { useZone } from "../parts/time";
import type { Item } from "./model";

/** What was worked out for an item, with its time and from what; or that a person looks. */
export function KnownWords({ item }: { item: Item }) {
  const z = useZone();
  const k = item.known;
  if (!k)
    return (
      <p className="border-top border-2 border-primary pt-2" role="status">
        It is not worked out here: look yourself.
      </p>
    );
  return (
    <div className="border-top border-2 border-primary pt-2 mb-3" role="status">
      <p className="mb-1">
        <VerdictMark verdict={k.verdict} /> {k.words}
      </p>
      <p className="soft mb-0">
        {k.source}
        {k.at && `, worked out ${z.time(k.at)}`}. Read it; if it is not so, say what you see.
      </p>
    </div>
  );
}

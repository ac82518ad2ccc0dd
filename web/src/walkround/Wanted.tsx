import { useZone } from "../parts/time";
import type { Run } from "./model";

/** What was said since the last walk, after flights and on other rounds: read before walking. */
export function Wanted({ notes }: { notes: Run["notes"] }) {
  const z = useZone();
  return (
    <div className="notices" role="note" aria-label="Since the last walk">
      <strong>Said since the last walk:</strong>
      <ul className="plain">
        {notes.map((n) => (
          <li key={n.at + n.text}>
            {n.text}{" "}
            <span className="soft">
              {n.by}, {z.both(n.at)}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

import { useZone } from "../parts/time";
import type { Run } from "./model";

/** What pilots wanted changed before this flight: read before walking. */
export function Wanted({ notes }: { notes: Run["notes"] }) {
  const z = useZone();
  return (
    <div className="notices" role="note" aria-label="From earlier flights">
      <strong>Wanted before the next flight:</strong>
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

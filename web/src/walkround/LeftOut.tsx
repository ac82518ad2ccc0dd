import { Flag } from "../parts/Flag";
import type { RunSeen } from "./model";

/** The items that are not asked today, each with its reason: nothing is dropped unseen. */
export function LeftOut({ w }: { w: Pick<RunSeen, "left_out"> }) {
  if (!w.left_out.length) return null;
  return (
    <section className="mt-3" aria-label="Not asked today">
      <h3>Not asked today: {w.left_out.length}</h3>
      <ul>
        {w.left_out.map((l) => (
          <li key={l.item_id}>
            {l.stops && <Flag verdict="stop" size={12} />} {l.title}. <span className="soft">{l.why}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

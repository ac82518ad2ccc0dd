import { Flag } from "../parts/Flag";
import type { RunSeen } from "./model";

/** What on this walk stops the flight, always in sight. */
export function Pinned({ w, onShow }: { w: RunSeen; onShow: (i: number) => void }) {
  const stops = w.entries.filter(
    (e) => e.judgement?.verdict === "stop" || e.others.some((o) => o.verdict === "stop"),
  );
  if (stops.length === 0) return null;
  return (
    <div className="alert alert-danger py-1 mb-2 d-flex gap-2 align-items-center flex-wrap" role="status">
      <Flag verdict="stop" size={16} />
      <strong>Stops the flight:</strong>
      {stops.map((e) => (
        <button
          type="button"
          key={e.item_id}
          className="btn btn-link"
          onClick={() => onShow(w.items.findIndex((i) => i.id === e.item_id))}
        >
          {w.items.find((i) => i.id === e.item_id)?.title}
        </button>
      ))}
    </div>
  );
}

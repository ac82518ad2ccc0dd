import { Notice } from "../parts/Notice";
import { Button } from "react-bootstrap";
import { Flag } from "../parts/Flag";
import type { RunSeen } from "./model";

/** What on this walk stops the flight, always in sight. */
export function Pinned({ w, onShow }: { w: RunSeen; onShow: (i: number) => void }) {
  const stops = w.entries.filter(
    (e) => e.judgement?.verdict === "stop" || e.others.some((o) => o.verdict === "stop"),
  );
  if (stops.length === 0) return null;
  return (
    <Notice verdict="stop" role="status" className="py-1 mb-2 align-items-center flex-wrap">
      <Flag verdict="stop" size={16} />
      <strong>Stops the flight:</strong>
      {stops.map((e) => (
        <Button
          key={e.item_id}
          variant="link"
          onClick={() => onShow(w.items.findIndex((i) => i.id === e.item_id))}
        >
          {w.items.find((i) => i.id === e.item_id)?.title}
        </Button>
      ))}
    </Notice>
  );
}

import { found, type RunSeen } from "./model";

/** What a walk found, item by item. */
export function Found({ w }: { w: RunSeen }) {
  return (
    <ul className="mt-2">
      {found(w).map((e) => (
        <li key={e.item_id}>
          <strong>{w.items.find((i) => i.id === e.item_id)?.title}</strong>:{" "}
          {e.value.note || e.judgement?.sentence || "not judged yet"}
        </li>
      ))}
    </ul>
  );
}

import { useCallback, useEffect } from "react";
import { useSearchParams } from "react-router";
import { typing } from "../app/Shortcuts";
import type { RunSeen } from "./model";

/** Which item of the walk is in hand; it stands in the address, and arrow keys move it. */
export function useStep(w: RunSeen) {
  const [params, setParams] = useSearchParams();
  const have = new Set(w.entries.map((e) => e.item_id));
  const firstOpen = w.items.findIndex((i) => !have.has(i.id));
  const asked = w.items.findIndex((i) => i.id === params.get("item"));
  const at = asked >= 0 ? asked : firstOpen >= 0 ? firstOpen : w.items.length;
  const show = useCallback(
    (i: number | undefined) => {
      const it = i === undefined ? undefined : w.items[i];
      setParams(it ? { item: it.id } : {}, { replace: true });
    },
    [setParams, w.items],
  );
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (typing(e) || document.querySelector(".modal.show")) return;
      if (e.key === "ArrowRight") show(Math.min(at + 1, w.items.length - 1));
      if (e.key === "ArrowLeft") show(Math.max(at - 1, 0));
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [at, show, w.items.length]);
  return { at, show };
}

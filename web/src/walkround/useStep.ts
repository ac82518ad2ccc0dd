import { useCallback, useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { typing } from "../parts/Shortcuts";
import { nextOpen, type RunSeen } from "./model";

/**
 * Which item of the walk is in hand; arrow keys move it. It stands in the
 * address, for a reload, but moving it is no navigation: the next item is there
 * with the press.
 */
export function useStep(w: RunSeen, me: string) {
  const [params] = useSearchParams();
  const [asked, setAsked] = useState(params.get("item"));
  const chosen = w.items.findIndex((i) => i.id === asked);
  const at = chosen >= 0 ? chosen : (nextOpen(w, me) ?? w.items.length);
  const show = useCallback(
    (i: number | undefined, when: (run: () => void) => void = (run) => run()) => {
      const it = i === undefined ? undefined : w.items[i];
      when(() => setAsked(it?.id ?? null));
      history.replaceState(history.state, "", it ? `?item=${encodeURIComponent(it.id)}` : location.pathname);
    },
    [w.items],
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

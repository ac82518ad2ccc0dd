import { useEffect } from "react";

/**
 * While it is shown, nothing else has a place on a phone or tablet: the shell
 * keeps its one line, and the bar below belongs to the work in hand.
 */
export function useQuiet(on = true) {
  useEffect(() => {
    if (!on) return;
    document.body.classList.add("quiet");
    return () => document.body.classList.remove("quiet");
  }, [on]);
}

import { useEffect } from "react";
import { useLocation } from "react-router";

/** How long a page may take to draw the field that the address names, in ms. */
const patience = 3000;

/**
 * An address may name the exact field or part of its page: ?at=mass. It is
 * brought into sight and takes the keys as soon as it is drawn.
 */
export function useAt() {
  const { key, search } = useLocation();
  useEffect(() => {
    const at = new URLSearchParams(search).get("at");
    if (!at) return;
    const until = Date.now() + patience;
    let frame = 0;
    const look = () => {
      const name = CSS.escape(at);
      const part = document.querySelector<HTMLElement>(`[name="${name}"], [data-at="${name}"]`);
      if (!part) {
        if (Date.now() < until) frame = requestAnimationFrame(look);
        return;
      }
      const field = part.matches("input, select, textarea, button")
        ? part
        : part.querySelector<HTMLElement>("input, select, textarea, button");
      part.scrollIntoView({ block: "center" });
      field?.focus({ preventScroll: true });
    };
    look();
    return () => cancelAnimationFrame(frame);
  }, [key, search]);
}

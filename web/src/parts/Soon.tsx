import { useEffect, useState, type ReactNode } from "react";

/** A long part of a page, drawn in the frame after the one that shows what a press did. */
export function Soon({ children }: { children: ReactNode }) {
  const [now, setNow] = useState(false);
  useEffect(() => {
    const frame = requestAnimationFrame(() => setTimeout(() => setNow(true)));
    return () => cancelAnimationFrame(frame);
  }, []);
  return now ? children : null;
}

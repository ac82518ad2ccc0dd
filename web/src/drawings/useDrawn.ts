import { useLayoutEffect, useRef, useState, type RefObject } from "react";

/** Less than this most drawings are not legible; they scroll instead. */
const usualLeast = 260;

/**
 * The size at which a drawing stands on the page, in px, so that its words are
 * as large on a phone as on a tablet. Before it is known, the usual size.
 */
export function useDrawn(
  usual: { width: number; height?: number },
  least = usualLeast,
): {
  ref: RefObject<SVGSVGElement | null>;
  width: number;
  height: number;
} {
  const ref = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState({ width: usual.width, height: usual.height ?? usual.width });
  useLayoutEffect(() => {
    const svg = ref.current;
    if (!svg) return;
    const measure = () => {
      const r = svg.getBoundingClientRect();
      if (r.width === 0) return; // not shown: in a closed part of the page
      const now = { width: Math.max(Math.round(r.width), least), height: Math.round(r.height) };
      setSize((s) => (s.width === now.width && s.height === now.height ? s : now));
    };
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(svg);
    return () => watch.disconnect();
  }, [least]);
  return { ref, ...size };
}

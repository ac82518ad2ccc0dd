import { memo, useCallback, useDeferredValue, useEffect, useRef, type MouseEvent } from "react";
import { useLocation, useNavigate } from "react-router";
import { forgetBack } from "../parts/back";
import { isUnder, places, type Place } from "../parts/places";

type Go = (e: MouseEvent, path: string) => void;

/**
 * The views in the order of work; at the foot of a phone. It follows the address a frame
 * later: the view that a press opens is drawn first.
 */
export const Rail = memo(function Rail({ onMore }: { onMore: () => void }) {
  const pathname = useDeferredValue(useLocation().pathname);
  const navigate = useRef(useNavigate());
  const now = useNavigate();
  useEffect(() => {
    navigate.current = now;
  }, [now]);
  const go = useCallback<Go>((e, path) => {
    forgetBack();
    if (e.button !== 0 || e.metaKey || e.ctrlKey || e.shiftKey || e.altKey) return; // another tab, a download
    e.preventDefault();
    void navigate.current(path);
  }, []);
  return (
    <nav className="rail" aria-label="Views in the order of work">
      <div className="brand">Mainstay</div>
      {places.map((p) => (
        <RailLink key={p.path} p={p} here={isUnder(pathname, p.path)} onGo={go} />
      ))}
      <button type="button" className="to-more" onClick={onMore}>
        More
      </button>
    </nav>
  );
});

const RailLink = memo(function RailLink({ p, here, onGo }: { p: Place; here: boolean; onGo: Go }) {
  return (
    <a
      href={p.path}
      className={[p.thumb && "thumbed", here && "active"].filter(Boolean).join(" ") || undefined}
      aria-current={here ? "page" : undefined}
      onClick={(e) => onGo(e, p.path)}
    >
      {p.name}
    </a>
  );
});

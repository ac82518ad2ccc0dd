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
    <nav
      className="rail nav flex-nowrap flex-sm-column flex-shrink-0 fixed-bottom sticky-sm-top overflow-auto bg-body d-print-none"
      aria-label="Views in the order of work"
    >
      <strong className="d-none d-sm-block px-3 pt-2 pb-3">Mainstay</strong>
      {places.map((p) => (
        <RailLink key={p.path} p={p} here={isUnder(pathname, p.path)} onGo={go} />
      ))}
      <button type="button" className="nav-link flex-fill justify-content-center d-sm-none" onClick={onMore}>
        More
      </button>
    </nav>
  );
});

const RailLink = memo(function RailLink({ p, here, onGo }: { p: Place; here: boolean; onGo: Go }) {
  return (
    <a
      href={p.path}
      className={`nav-link ${p.thumb ? "flex-fill flex-sm-grow-0 justify-content-center justify-content-sm-start" : "d-none d-sm-flex"} ${here ? "active" : ""}`}
      aria-current={here ? "page" : undefined}
      onClick={(e) => onGo(e, p.path)}
    >
      {p.name}
    </a>
  );
});

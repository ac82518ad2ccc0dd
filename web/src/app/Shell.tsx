import { useQueryClient } from "@tanstack/react-query";
import { lazy, memo, type ReactNode, Suspense, useCallback, useEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { useLocation } from "react-router";
import { Find } from "../find/Find";
import { sendFor } from "../outbox/send";
import { rememberUnits } from "../parts/number";
import { useNow, useZone } from "../parts/time";
import { PaperFoot } from "../records/PaperFoot";
import { BackLine } from "./BackLine";
import { useChanges } from "./changes";
import { LinkMark } from "./LinkMark";
import { More } from "./More";
import { Rail } from "./Rail";
import { useSession } from "../parts/session";
import { useShortcuts } from "../parts/Shortcuts";
import { SignOut } from "./SignOut";
import { applyTheme, currentTheme } from "./theme";
import { useAt } from "./useAt";
import { useVersion } from "./version";

const Help = lazy(() => import("../help/Help").then((m) => ({ default: m.Help })));

function Clock() {
  const now = useNow();
  const z = useZone();
  return (
    <span className="fig" title={`Clock of ${z.zone}`}>
      <span className="d-none d-sm-inline">{z.date(new Date(now).toISOString())}</span> {z.clock(now)}{" "}
      <span className="soft d-none d-xxl-inline">{z.zone.split("/").pop()?.replace("_", " ")}</span>
    </span>
  );
}

/** Follows the address, and draws nothing else anew. */
function Newer() {
  return useVersion() ? <span className="soft text-nowrap">A new version waits.</span> : null;
}

/** One line with clock, connection and who is here. Not drawn anew with each view: a press is answered sooner. */
const TopLine = memo(function TopLine(o: {
  night: boolean;
  onNight: () => void;
  onHelp: () => void;
  onMore: () => void;
}) {
  const s = useSession();
  return (
    <header className="sticky-top d-print-none d-flex align-items-center gap-2 px-3 py-1 border-bottom text-nowrap bg-body">
      <strong className="d-none d-xxl-block">{s.crew.name}</strong>
      <Clock />
      <LinkMark />
      <Newer />
      <span className="flex-grow-1" />
      <span className="find-here d-none d-sm-block" style={{ width: 170 }}>
        <Find />
      </span>
      <span className="d-none d-lg-inline">
        {s.person.name} <span className="soft d-none d-xxl-inline">({s.person.roles.join(", ")})</span>
      </span>
      <Button
        variant="outline-primary"
        size="sm"
        className="d-none d-lg-inline-flex"
        onClick={o.onNight}
        aria-pressed={o.night}
      >
        {o.night ? "Daylight" : "Night"}
      </Button>
      <Button
        variant="outline-primary"
        size="sm"
        className="d-none d-lg-inline-flex"
        onClick={o.onHelp}
        aria-label="Help: how it is done here"
      >
        ?
      </Button>
      <span className="d-none d-lg-inline">
        <SignOut />
      </span>
      <Button variant="outline-primary" size="sm" className="more-button d-lg-none" onClick={o.onMore}>
        More
      </Button>
    </header>
  );
});

/** What stands round every view: the views in the order of work, and one line with clock, connection and who is here. */
export function Shell({ children }: { children: ReactNode }) {
  const s = useSession();
  const qc = useQueryClient();
  const [night, setNight] = useState(currentTheme() === "dark");
  const [help, setHelp] = useState(false);
  const [more, setMore] = useState(false);
  const { pathname } = useLocation();
  const main = useRef<HTMLElement>(null);
  useEffect(() => rememberUnits(s.units), [s.units]);
  useEffect(() => sendFor(s.person.id, qc), [s.person.id, qc]);
  useShortcuts(() => setHelp(true));
  useChanges();
  useAt();
  useEffect(() => {
    // A new view starts at its top, for eyes and for screen readers; once it is drawn, so that it is drawn sooner.
    const frame = requestAnimationFrame(() => {
      window.scrollTo(0, 0);
      if (!main.current?.contains(document.activeElement)) main.current?.focus({ preventScroll: true });
    });
    return () => cancelAnimationFrame(frame);
  }, [pathname]);
  const flip = useCallback(() => {
    applyTheme(night ? "light" : "dark");
    setNight(!night);
  }, [night]);
  const openMore = useCallback(() => setMore(true), []);
  const closeMore = useCallback(() => setMore(false), []);
  const openHelp = useCallback(() => setHelp(true), []);
  return (
    <div className="shell d-sm-flex">
      <Rail onMore={openMore} />
      <div className="column d-flex flex-column flex-grow-1">
        <TopLine night={night} onNight={flip} onHelp={openHelp} onMore={openMore} />
        <main ref={main} tabIndex={-1}>
          <BackLine />
          {children}
        </main>
        {pathname !== "/labels" && <PaperFoot />}
      </div>
      <More
        open={more}
        onClose={closeMore}
        night={night}
        onNight={flip}
        onHelp={() => {
          setMore(false);
          setHelp(true);
        }}
      />
      {help && (
        <Suspense fallback={null}>
          <Help open onClose={() => setHelp(false)} />
        </Suspense>
      )}
    </div>
  );
}

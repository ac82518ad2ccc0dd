import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { Button } from "react-bootstrap";
import { NavLink, useLocation } from "react-router";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { Find } from "../find/Find";
import { useNow, useZone } from "../parts/time";
import { rememberUnits } from "../parts/number";
import { PaperFoot } from "../records/PaperFoot";
import { useSession } from "./session";
import { useChanges } from "./changes";
import { Shortcuts, useShortcuts } from "./Shortcuts";
import { applyTheme, currentTheme } from "./theme";

export const places: { path: string; name: string; key: string }[] = [
  { path: "/", name: "Day", key: "d" },
  { path: "/jobs", name: "Jobs", key: "j" },
  { path: "/sites", name: "Sites", key: "i" },
  { path: "/fleet", name: "Fleet", key: "f" },
  { path: "/packs", name: "Packs", key: "p" },
  { path: "/tonight", name: "Tonight", key: "t" },
  { path: "/workshop", name: "Workshop", key: "w" },
  { path: "/log", name: "Log", key: "l" },
  { path: "/crew", name: "Crew", key: "c" },
  { path: "/setup", name: "Set-up", key: "s" },
];

function Clock() {
  const now = useNow();
  const z = useZone();
  return (
    <span className="fig" title={`Clock of ${z.zone}`}>
      {z.date(new Date(now).toISOString())} {z.clock(now)}{" "}
      <span className="soft">{z.zone.split("/").pop()?.replace("_", " ")}</span>
    </span>
  );
}

export function Shell({ offline, children }: { offline: boolean; children: ReactNode }) {
  const s = useSession();
  useEffect(() => rememberUnits(s.units), [s.units]);
  const qc = useQueryClient();
  const [theme, setTheme] = useState(currentTheme());
  const [help, setHelp] = useState(false);
  const { pathname } = useLocation();
  const main = useRef<HTMLElement>(null);
  useShortcuts(() => setHelp(true));
  useChanges();
  useEffect(() => {
    // A new view starts at its top, for eyes and for screen readers.
    window.scrollTo(0, 0);
    main.current?.focus({ preventScroll: true });
  }, [pathname]);

  const signOut = async () => {
    await ask(api.DELETE("/session"));
    qc.setQueryData(keys.session, null);
    qc.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" }); // the next person sees nothing of this one
  };
  const flip = () => {
    const t = theme === "light" ? "dark" : "light";
    applyTheme(t);
    setTheme(t);
  };
  return (
    <div className="shell">
      <nav className="rail" aria-label="Views in the order of work">
        <div className="brand">Mainstay</div>
        {places.map((p) => (
          <NavLink key={p.path} to={p.path} end={p.path === "/"}>
            {p.name}
          </NavLink>
        ))}
      </nav>
      <div className="column">
        <header className="topline">
          <strong>{s.crew.name}</strong>
          <Clock />
          <span className={offline ? "link-off" : "visually-hidden"} role="status">
            {offline ? "No connection" : "Connected"}
          </span>
          <span className="grow" />
          <Find />
          <span>
            {s.person.name} <span className="soft roles">({s.person.roles.join(", ")})</span>
          </span>
          <Button variant="outline-primary" size="sm" onClick={flip} aria-pressed={theme === "dark"}>
            {theme === "light" ? "Night" : "Daylight"}
          </Button>
          <Button
            variant="outline-primary"
            size="sm"
            onClick={() => setHelp(true)}
            aria-label="Keyboard shortcuts"
          >
            ?
          </Button>
          <Button variant="outline-primary" size="sm" onClick={() => void signOut()}>
            Sign out
          </Button>
        </header>
        <main ref={main} tabIndex={-1}>
          {children}
        </main>
        {pathname !== "/labels" && <PaperFoot />}
      </div>
      <Shortcuts open={help} onClose={() => setHelp(false)} />
    </div>
  );
}

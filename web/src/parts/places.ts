export interface Place {
  path: string;
  name: string;
  key: string;
  thumb?: boolean;
}

/** The views in the order of work; a phone has room for the first few, the rest are under More. */
export const places: Place[] = [
  { path: "/", name: "Day", key: "d", thumb: true },
  { path: "/jobs", name: "Jobs", key: "j", thumb: true },
  { path: "/sites", name: "Sites", key: "i" },
  { path: "/fleet", name: "Fleet", key: "f", thumb: true },
  { path: "/packs", name: "Packs", key: "p", thumb: true },
  { path: "/tonight", name: "Tonight", key: "t" },
  { path: "/workshop", name: "Workshop", key: "w" },
  { path: "/log", name: "Log", key: "l" },
  { path: "/crew", name: "Crew", key: "c" },
  { path: "/bench", name: "Bench", key: "b" },
  { path: "/setup", name: "Set-up", key: "s" },
];

/** Whether an address belongs to a view: the view itself, or what lies under it. */
export function isUnder(pathname: string, path: string): boolean {
  return pathname === path || (path !== "/" && pathname.startsWith(`${path}/`));
}

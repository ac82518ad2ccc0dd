import type { QueryClient } from "@tanstack/react-query";

/**
 * Which queries look again when a table has changed: by this device, which says what it wrote, or by
 * another, of which the server's stream tells.
 */
export const concerned = {
  aircraft: ["day", "fleet", "gate"],
  parts: ["trends", "fleet", "day", "gate", "due", "part", "stock"],
  packs: ["packs", "day", "gate", "flight", "sets", "evening", "charger"],
  pack_readings: ["packs", "gate", "sets", "evening"],
  pack_outlooks: ["packs", "gate", "sets"],
  pack_looks: ["packs", "gate", "evening"],
  charges: ["charger"],
  groundings: ["day", "fleet", "gate"],
  defects: ["day", "fleet", "gate", "defects"],
  work_orders: ["orders", "day", "fleet", "gate", "due", "defects"],
  work_entries: ["orders"],
  work_used: ["orders", "stock"],
  task_done: ["due", "day", "fleet", "gate"],
  deferrals: ["due", "day", "fleet", "gate", "defects"],
  stock_lines: ["stock"],
  part_approvals: ["stock"],
  programmes: ["programme", "due", "gate"],
  firmware_sets: ["firmware", "gate", "fleet", "day"],
  firmware_installed: ["firmware", "gate", "fleet", "day"],
  gear: ["evening", "gear", "gate", "day", "fleet"],
  job_gear: ["jobs", "gate"],
  calibrations: ["fleet", "gate", "day"],
  chargers: ["evening"],
  evenings: ["evening"],
  evening_ticks: ["evening"],
  background_work: ["background"],
  sites: ["site", "jobs"],
  site_features: ["site", "jobs", "gate"],
  site_terrain: ["site", "jobs", "gate"],
  site_weather: ["site", "jobs", "gate"],
  zones: ["airspace", "jobs", "gate"],
  site_airspace: ["airspace", "jobs", "gate"],
  authorisations: ["airspace", "jobs", "gate", "flight"],
  authorisation_calls: ["airspace", "jobs", "gate"],
  jobs: ["jobs", "gate", "day"],
  job_aircraft: ["jobs", "gate"],
  job_people: ["jobs", "gate"],
  job_decisions: ["jobs", "gate", "site"],
  job_answers: ["jobs", "gate"],
  job_kit: ["jobs"],
  briefings: ["jobs", "gate"],
  briefing_signatures: ["jobs", "gate"],
  nozzles: ["nozzles", "spray", "spray-try"],
  cameras: ["cameras", "mission", "mission-try"],
  canopies: ["canopies", "mission", "mission-try"],
  mission_plans: ["mission", "jobs", "gate"],
  mission_reads: ["mission", "gate"],
  camera_cards: ["mission", "gate"],
  mission_flown: ["mission", "jobs", "gate"],
  mission_findings: ["mission"],
  spray_plans: ["spray", "jobs", "gate"],
  spray_done: ["spray", "jobs", "gate"],
  spray_fills: ["spray"],
  spray_records: ["spray-record"],
  weighings: ["fleet", "spray", "jobs", "gate"],
  spray_checks: ["spray-checks", "spray", "jobs", "gate"],
  documents: ["papers", "jobs", "gate", "day"],
  fitness: ["papers", "jobs", "gate"],
  practice: ["papers", "jobs", "gate"],
  local_rules: ["rules", "jobs", "gate"],
  incident_reports: ["rules", "gate"],
  crew: [
    "session",
    "rules",
    "practices",
    "jobs",
    "gate",
    "day",
    "fleet",
    "packs",
    "site",
    "types",
    "lists",
    "due",
    "walkround",
    "flight",
    "log",
    "evening",
  ],
  walkrounds: ["trends", "day", "fleet", "gate", "defects", "walkround"],
  walkround_entries: ["walkround"],
  releases: ["day", "gate"],
  flights: ["trends", "day", "fleet", "gate", "flight", "log", "records", "due", "jobs"],
  flight_events: ["flight"],
  flight_corrections: ["flight", "log", "fleet", "day", "gate", "due", "part"],
  people: ["people", "gate", "session", "jobs"],
} satisfies Record<string, string[]>;

export type Table = keyof typeof concerned;

/** First words of the keys that look again when these tables have changed. */
export function keysOf(tables: string[]): Set<string> {
  return new Set(tables.flatMap((t) => (Object.hasOwn(concerned, t) ? concerned[t as Table] : [])));
}

/** Says what was written: all that shows something of it looks again, and nothing else does. */
export function wrote(qc: QueryClient, ...tables: Table[]): Promise<void> {
  const now = keysOf(tables);
  return qc.invalidateQueries({ predicate: (q) => now.has(String(q.queryKey[0])) });
}

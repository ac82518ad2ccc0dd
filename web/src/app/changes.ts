import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { deaf, heard, listens, probe } from "../api/link";

/** Which queries look again when a table has changed. */
const concerned: Record<string, string[]> = {
  aircraft: ["day", "fleet", "gate"],
  parts: ["fleet", "day", "gate", "due", "part", "stock"],
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
  nozzles: ["nozzles", "spray"],
  cameras: ["cameras", "mission"],
  canopies: ["canopies", "mission"],
  mission_plans: ["mission", "jobs", "gate"],
  mission_reads: ["mission", "gate"],
  camera_cards: ["mission", "gate"],
  mission_flown: ["mission", "jobs", "gate"],
  mission_findings: ["mission"],
  spray_plans: ["spray", "jobs", "gate"],
  spray_done: ["spray", "jobs", "gate"],
  spray_fills: ["spray"],
  spray_records: ["spray-record"],
  weighings: ["energy", "spray", "jobs", "gate"],
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
    "due",
    "walkround",
    "flight",
  ],
  walkrounds: ["day", "fleet", "gate", "defects", "walkround"],
  walkround_entries: ["walkround"],
  releases: ["day", "gate"],
  flights: ["day", "fleet", "gate", "flight", "log", "records", "due", "jobs"],
  flight_events: ["flight"],
  flight_corrections: ["flight", "log", "fleet", "day", "gate", "due", "part"],
  people: ["people", "gate", "session", "jobs"],
};

/** Listens to the server's stream of changes, so that what one person does is on every open screen at once. */
export function useChanges() {
  const qc = useQueryClient();
  useEffect(() => {
    const waiting = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let stream: EventSource | undefined;
    const hear = (e: MessageEvent<string>) => {
      heard();
      const keys = e.data === "all" ? Object.values(concerned).flat() : (concerned[e.data] ?? []);
      keys.forEach((k) => waiting.add(k));
      timer ??= setTimeout(() => {
        timer = undefined;
        const now = new Set(waiting);
        waiting.clear();
        void qc.invalidateQueries({ predicate: (q) => now.has(String(q.queryKey[0])) });
      }, 120);
    };
    const open = () => {
      stream ??= new EventSource("/api/v1/changes");
      stream.onmessage = hear;
      stream.onopen = () => listens(true);
      stream.addEventListener("beat", heard);
      stream.onerror = () => {
        listens(false); // it comes back by itself; whether the server is there is asked meanwhile
        void probe();
      };
    };
    // A page that the browser keeps for the way back must not keep its connection.
    const close = () => {
      deaf();
      stream?.close();
      stream = undefined;
    };
    open();
    window.addEventListener("pageshow", open);
    window.addEventListener("pagehide", close);
    return () => {
      window.removeEventListener("pageshow", open);
      window.removeEventListener("pagehide", close);
      clearTimeout(timer);
      close();
    };
  }, [qc]);
}

/** The one place where query keys are made. */
export const keys = {
  session: ["session"] as const,
  setup: ["setup"] as const,
  day: ["day"] as const,
  fleet: ["fleet"] as const,
  aircraft: (id: string) => ["fleet", id] as const,
  types: ["types"] as const,
  packs: ["packs"] as const,
  pack: (id: string) => ["packs", id] as const,
  walkround: (id: string) => ["walkround", id] as const,
  gate: (aircraft: string, question: unknown) => ["gate", aircraft, question] as const,
  flight: (id: string) => ["flight", id] as const,
  log: (filter: unknown) => ["log", filter] as const,
  totals: (filter: unknown) => ["log", "totals", filter] as const,
  records: (aircraft: string | undefined) => ["records", aircraft] as const,
  people: ["people"] as const,
};

import type { Schemas } from "../api/client";

/** What calls the landing first, as the crew keeps it, and what else does. */
export function landingCalls(t: Schemas["TypeEntry"]): { first: string; then: string } {
  const { limits, packs } = t.profile;
  const said = {
    percent: `${limits.land_by_percent} %`,
    volts: `${((limits.land_by_cell_mv * packs.cells) / 1000).toFixed(1)} V`,
    minutes: `${limits.planned_minutes} min`,
  };
  const cell = `${(limits.land_by_cell_mv / 1000).toFixed(2)} V a cell under load`;
  const rest = (["percent", "volts"] as const).filter((k) => k !== t.landing_call).map((k) => said[k]);
  return { first: said[t.landing_call], then: `or ${rest.join(", ")}; ${cell}` };
}

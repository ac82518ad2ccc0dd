import { useWrite } from "../api/write";
import { api, ask, type Schemas } from "../api/client";

/** Note that something must be reported. */
export const useRaiseReport = () =>
  useWrite((body: Schemas["ReportNew"]) => ask(api.POST("/reports", { body })), "incident_reports");

/** Note that it was reported. */
export const useReportDone = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["ReportDone"] }) =>
      ask(api.POST("/reports/{id}/done", { params: { path: { id } }, body })),
    "incident_reports",
  );

/** Add or change a rule of the own; version 0 is a new one. */
export const useSaveLocalRule = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["LocalRuleEdit"] }) =>
      ask(api.PUT("/rules/local/{id}", { params: { path: { id } }, body })),
    "local_rules",
  );

/** Remove a rule of the own. */
export const useRemoveLocalRule = () =>
  useWrite(
    ({ id }: { id: string }) => ask(api.DELETE("/rules/local/{id}", { params: { path: { id } } })),
    "local_rules",
  );

/** Choose the rule pack and the limit of sight. */
export const useChooseRules = () =>
  useWrite((body: Schemas["RuleChoice"]) => ask(api.PUT("/rules", { body })), "crew");

import type { Schemas } from "../api/client";

type Step = Pick<Schemas["NextStep"], "kind"> & { id?: string };

/** Where in the application a remedy or a next step is done. */
export function remedyPath(r: Step, aircraft: string): string | undefined {
  switch (r.kind) {
    case "flight":
      return `/fly/${r.id}`;
    case "gate":
    case "release":
      return `/gate/${aircraft}`;
    case "walkround":
    case "turnaround":
      return `/walk/start/${aircraft}?kind=${r.kind}`;
    case "walkround-resume":
      return `/walk/${r.id}`;
    case "aircraft":
    case "return":
    case "propellers":
      return `/fleet/${aircraft}${r.kind === "propellers" ? "?fit=propellers" : ""}`;
    case "defect":
      return `/fleet/${aircraft}?defect=${r.id}`;
    case "station":
      return `/fleet/${aircraft}?station=${r.id?.split("/")[1] ?? ""}`;
    case "order":
      return `/workshop/orders/${r.id}`;
    case "task":
      return `/workshop/orders/new?aircraft=${aircraft}&task=${r.id?.split("/")[1] ?? ""}`;
    case "programme":
      return "/setup";
    case "acceptance":
      return `/gate/${aircraft}?acceptance=${r.id}`;
    case "pack":
      return `/packs/${r.id}`;
    case "rack":
      return "/packs";
    case "person":
    case "readiness":
      return `/crew/${r.id ?? ""}`;
    case "documents":
      return r.id ? `/crew/${r.id}` : "/crew?tab=papers";
    case "fitness":
      return "/crew?tab=fit";
    case "reports":
      return "/rules?tab=reports";
    case "jobs":
      return "/jobs";
    case "job":
      return `/jobs/${r.id}?change=1`;
    case "job-decide":
      return `/jobs/${r.id}`;
    case "gear":
      return "/tonight";
    case "job-rules":
      return `/jobs/${r.id}?tab=asks`;
    case "briefing":
      return `/jobs/${r.id}?tab=briefing`;
    case "site":
      return `/sites/${r.id}`;
    case "site-home":
      return `/sites/${r.id}?tab=home${aircraft ? `&aircraft=${aircraft}` : ""}`;
    case "site-weather":
      return `/sites/${r.id}?tab=weather${aircraft ? `&aircraft=${aircraft}` : ""}`;
    case "site-airspace":
      return `/sites/${r.id}?tab=airspace`;
    case "choose-packs":
    case "enter-wind":
      return aircraft ? `/gate/${aircraft}` : undefined;
    default:
      return r.kind satisfies never; // a remedy without a place does not compile
  }
}

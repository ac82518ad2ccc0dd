import type { Schemas } from "../api/client";

type Step = { kind: string; id?: string };

/** Where in the application a remedy or a next step is done. */
export function remedyPath(r: Step | Schemas["Remedy"], aircraft: string): string | undefined {
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
      return "/crew";
  }
  return undefined;
}

import { Notice } from "../parts/Notice";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { eventWords, grounds, type Flight } from "./model";

/** After a contact or a hard landing: whether the authority must be told, while it is known what happened. */
export function AskReport({ f }: { f: Flight }) {
  const hit = f.events.find((e) => grounds(e.kind));
  const may = useMay()("pilot", "crew", "technician");
  const rule = useQuery({
    queryKey: [...keys.reports, "rule"],
    queryFn: () => ask(api.GET("/reports")),
    enabled: hit !== undefined && may,
  });
  if (!hit || !may) return null;
  const to = new URLSearchParams({
    tab: "reports",
    report: "new",
    aircraft: f.aircraft_id,
    at: hit.at,
    what: `${eventWords[hit.kind]} of ${f.aircraft}${hit.note ? `: ${hit.note}` : ""}`,
  });
  return (
    <Notice className="mb-3 d-print-none">
      <div>
        <p>
          Does this have to be told to the authority?{" "}
          {rule.data && `${rule.data.statement} (${rule.data.citation})`}
        </p>
        <Link className="btn btn-outline-primary mt-2" to={`/rules?${to}`}>
          It must be reported
        </Link>
      </div>
    </Notice>
  );
}

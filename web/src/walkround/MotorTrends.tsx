import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { VerdictMark } from "../parts/Flag";
import { trendsAt, type Item } from "./model";

/** What the last flights and walks say of the motors that an item looks at: only what stands out. */
export function MotorTrends({ aircraft, item }: { aircraft: string; item: Item }) {
  const q = useQuery({
    queryKey: keys.trends(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}/trends", { params: { path: { id: aircraft } } })),
    staleTime: 10 * 60_000,
  });
  const said = q.data ? trendsAt(q.data, item) : [];
  if (!said.length) return null;
  return (
    <ul className="plain" aria-label="Motors over time">
      {said.map((s) => (
        <li key={s.words}>
          <VerdictMark verdict={s.verdict} /> {s.words}
        </li>
      ))}
    </ul>
  );
}

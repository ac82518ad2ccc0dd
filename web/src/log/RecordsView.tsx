import { useInfiniteQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useSearchParams } from "react-router";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { ScrollX } from "../parts/ScrollX";
import { ViewHead } from "../parts/Sheet";
import { Empty, Loading, Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { ChainCheck } from "../records/ChainCheck";

/** The chain of records: what was signed or done, by whom, and whether the chain holds. */
export function RecordsView() {
  const z = useZone();
  const may = useMay();
  const [params] = useSearchParams();
  const aircraft = params.get("aircraft") ?? undefined;
  const q = useInfiniteQuery({
    queryKey: keys.records(aircraft),
    queryFn: ({ pageParam }) =>
      ask(api.GET("/records", { params: { query: { aircraft, cursor: pageParam || undefined } } })),
    initialPageParam: "",
    getNextPageParam: (last) => last.next_cursor || undefined,
  });
  const records = q.data?.pages.flatMap((p) => p.records) ?? [];
  return (
    <>
      <ViewHead title="Records">
        {may("pilot", "technician", "reader") && (
          <a className="btn btn-outline-primary" href="/api/v1/records/export" download="records.jsonl">
            Export for a check elsewhere
          </a>
        )}
      </ViewHead>
      <div className="mb-3">
        <ChainCheck />
      </div>
      {q.isError && !q.data && <Problem error={q.error} retry={() => void q.refetch()} />}
      {q.isPending && <Loading what="the records" />}
      {q.data && records.length === 0 && <Empty>Nothing is on record yet.</Empty>}
      {records.length > 0 && (
        <ScrollX label="Records">
          <table className="ledger">
            <thead>
              <tr>
                <th className="num">No.</th>
                <th>When</th>
                <th>What</th>
                <th>By</th>
                <th>Hash</th>
              </tr>
            </thead>
            <tbody>
              {records.map((r) => (
                <tr key={r.seq}>
                  <td className="num">{r.seq}</td>
                  <td className="fig text-nowrap">{z.both(r.at)}</td>
                  <td>
                    {r.summary} <span className="soft">({r.kind})</span>
                  </td>
                  <td>
                    {r.by}
                    {r.signed && <span className="soft"> signed</span>}
                  </td>
                  <td className="fig soft">{r.hash.slice(0, 12)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {q.hasNextPage && (
            <Button variant="outline-primary" className="mt-3" onClick={() => void q.fetchNextPage()}>
              Show older records
            </Button>
          )}
        </ScrollX>
      )}
    </>
  );
}

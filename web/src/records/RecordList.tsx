import { Filters } from "../parts/Filters";
import { Table } from "react-bootstrap";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { usePages } from "../api/pages";
import { useAddress } from "../parts/address";
import { DayFilter } from "../parts/DayFilter";
import { More } from "../parts/More";
import { ScrollX } from "../parts/ScrollX";
import { SearchField } from "../parts/SearchField";
import { Empty, Loading, Problem } from "../parts/states";
import { useZone } from "../parts/time";

/** Records, newest first, by words, by who did it and by days. */
export function RecordList() {
  const z = useZone();
  const [params, set] = useAddress();
  const filter = {
    aircraft: params.get("aircraft") ?? undefined,
    q: params.get("q") || undefined,
    from: params.get("from") || undefined,
    to: params.get("to") || undefined,
  };
  const q = usePages({
    key: keys.records(filter),
    read: (cursor) => ask(api.GET("/records", { params: { query: { ...filter, cursor } } })),
    rows: (p) => p.records,
  });
  const records = q.data?.rows ?? [];
  const filtered = Object.values(filter).some(Boolean);
  return (
    <>
      <Filters>
        <SearchField
          label="Words on record"
          placeholder="Word or name"
          value={filter.q ?? ""}
          onChange={(v) => set({ q: v })}
        />
        <DayFilter label="From day" day={filter.from ?? ""} onChange={(d) => set({ from: d })} />
        <DayFilter label="To day" day={filter.to ?? ""} onChange={(d) => set({ to: d })} />
      </Filters>
      {q.isError && !q.data && <Problem error={q.error} retry={() => void q.refetch()} />}
      {q.isPending && <Loading what="the records" />}
      {q.data && records.length === 0 && (
        <Empty>{filtered ? "Nothing on record is like this." : "Nothing is on record yet."}</Empty>
      )}
      {records.length > 0 && (
        <ScrollX label="Records">
          <Table>
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
          </Table>
          <More of={q} what="records" />
        </ScrollX>
      )}
    </>
  );
}

import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { asText, BringIn } from "../parts/BringIn";
import { useAddress } from "../parts/address";
import { SearchField } from "../parts/SearchField";
import { ScrollX } from "../parts/ScrollX";
import { DayFilter } from "../parts/DayFilter";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, Loading, Problem, QueryView } from "../parts/states";
import { hoursMinutes, useZone } from "../parts/time";
import { counted } from "../parts/number";

/** The log: every flight, totals of the selection, out as CSV and back in. */
export function LogView() {
  const [params, change] = useAddress();
  const may = useMay();
  const people = useQuery({ queryKey: keys.people, queryFn: () => ask(api.GET("/people")) });
  const fleet = useQuery({ queryKey: keys.fleet, queryFn: () => ask(api.GET("/aircraft")) });
  const get = (k: string) => params.get(k) || undefined;
  const filter = {
    q: get("q"),
    aircraft: get("aircraft"),
    pilot: get("pilot"),
    from: get("from"),
    to: get("to"),
  };
  const set = (k: string, v: string) => change({ [k]: v });
  const csv = `/api/v1/log.csv?${new URLSearchParams(Object.entries(filter).filter((e): e is [string, string] => Boolean(e[1])))}`;
  return (
    <>
      <ViewHead
        title="Log"
        more={
          <>
            <a className="btn btn-outline-primary" href={csv} download="flights.csv">
              Export as CSV
            </a>
            {may() && <ImportLog />}
            <Button variant="outline-primary" onClick={() => print()}>
              Print
            </Button>
          </>
        }
      >
        <Link className="btn btn-outline-primary" to="/log/records">
          Records
        </Link>
      </ViewHead>
      <div className="filters no-print">
        <SearchField
          label="Words in purpose, remarks, names"
          placeholder="Words"
          value={filter.q ?? ""}
          onChange={(v) => set("q", v)}
        />
        <select
          className="form-select"
          style={{ width: 190 }}
          aria-label="Aircraft"
          value={filter.aircraft ?? ""}
          onChange={(e) => set("aircraft", e.target.value)}
        >
          <option value="">All aircraft</option>
          {fleet.data?.aircraft.map((a) => (
            <option key={a.aircraft.id} value={a.aircraft.id}>
              {a.aircraft.name}
            </option>
          ))}
        </select>
        <select
          className="form-select"
          style={{ width: 190 }}
          aria-label="Pilot"
          value={filter.pilot ?? ""}
          onChange={(e) => set("pilot", e.target.value)}
        >
          <option value="">All pilots</option>
          {people.data?.people
            .filter((p) => p.roles.includes("pilot"))
            .map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
        </select>
        <DayFilter label="From day" day={filter.from ?? ""} onChange={(d) => set("from", d)} />
        <DayFilter label="To day" day={filter.to ?? ""} onChange={(d) => set("to", d)} />
      </div>
      <Totals filter={filter} />
      <Flights filter={filter} />
    </>
  );
}

type Filter = { q?: string; aircraft?: string; pilot?: string; from?: string; to?: string };

function Totals({ filter }: { filter: Filter }) {
  const q = useQuery({
    queryKey: keys.totals(filter),
    queryFn: () => ask(api.GET("/log/totals", { params: { query: filter } })),
  });
  const groups = (t: Schemas["Totals"]): [string, Schemas["Total"][]][] => [
    ["By pilot", t.by_pilot],
    ["By aircraft", t.by_aircraft],
    ["By type", t.by_type],
    ["By pack", t.by_pack],
  ];
  return (
    <QueryView query={q} what="the totals">
      {(t) => (
        <div className="mb-3">
          <div className="sums">
            <div>
              <span className="fig">{hoursMinutes(t.all.seconds)}</span> hours
            </div>
            <div>
              <span className="fig">{t.all.flights}</span> flights
            </div>
            <div>
              <span className="fig">{t.all.landings}</span> landings
            </div>
          </div>
          <details>
            <summary>Totals by pilot, aircraft, type and pack</summary>
            <div className="two">
              {groups(t).map(([name, rows]) => (
                <Sheet key={name} title={name}>
                  <table className="ledger">
                    <thead>
                      <tr>
                        <th>Name</th>
                        <th className="num">Hours</th>
                        <th className="num">Flights</th>
                        <th className="num">Landings</th>
                      </tr>
                    </thead>
                    <tbody>
                      {rows.map((r) => (
                        <tr key={r.name}>
                          <td>{r.name}</td>
                          <td className="num">{hoursMinutes(r.seconds)}</td>
                          <td className="num">{r.flights}</td>
                          <td className="num">{r.landings}</td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </Sheet>
              ))}
            </div>
          </details>
        </div>
      )}
    </QueryView>
  );
}

function Flights({ filter }: { filter: Filter }) {
  const z = useZone();
  const q = useInfiniteQuery({
    queryKey: keys.log(filter),
    queryFn: ({ pageParam }) =>
      ask(api.GET("/log", { params: { query: { ...filter, cursor: pageParam || undefined } } })),
    initialPageParam: "",
    getNextPageParam: (last) => last.next_cursor || undefined,
  });
  if (q.isError && !q.data) return <Problem error={q.error} retry={() => void q.refetch()} />;
  if (!q.data) return <Loading what="the flights" />;
  const flights = q.data.pages.flatMap((p) => p.flights);
  if (flights.length === 0)
    return (
      <Empty>
        {Object.values(filter).some(Boolean)
          ? "No flight matches."
          : "No flight has been logged yet. Flights come here by themselves when they are logged."}
      </Empty>
    );
  return (
    <ScrollX label="Flights">
      <table className="ledger">
        <thead>
          <tr>
            <th>Take-off</th>
            <th>Aircraft</th>
            <th>Pilot</th>
            <th>Packs</th>
            <th className="num">h:min</th>
            <th className="num">Ldg</th>
            <th>Purpose and remarks</th>
          </tr>
        </thead>
        <tbody>
          {flights.map((f) => (
            <tr key={f.id}>
              <td className="fig text-nowrap">
                <Link to={`/fly/${f.id}`}>{z.both(f.took_off_at)}</Link>
              </td>
              <td className="text-nowrap">{f.aircraft}</td>
              <td>{f.pilot}</td>
              <td>{f.packs.join(", ")}</td>
              <td className="num">{hoursMinutes(f.seconds)}</td>
              <td className="num">{f.landings}</td>
              <td>
                {f.purpose}
                {f.remarks && <div className="soft">{f.remarks}</div>}
                {f.events > 0 && <div className="soft">{counted(f.events, "event")}</div>}
                {f.source === "import" && <div className="soft">imported</div>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {q.hasNextPage && (
        <Button
          variant="outline-primary"
          className="mt-3"
          disabled={q.isFetchingNextPage}
          onClick={() => void q.fetchNextPage()}
        >
          {q.isFetchingNextPage ? "Loading …" : "Show older flights"}
        </Button>
      )}
    </ScrollX>
  );
}

function ImportLog() {
  return (
    <BringIn
      label="Import CSV"
      field="CSV file of flights"
      what="flights"
      accept=".csv,text/csv"
      dialog="Import of flights"
      take={async (file, fetch) =>
        ask(api.POST("/log/import", { body: await file.text(), ...asText, fetch }))
      }
    />
  );
}

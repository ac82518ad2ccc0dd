import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { VerdictMark } from "../parts/Flag";
import { ScrollX } from "../parts/ScrollX";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { Withdraw } from "./Withdraw";

/** Readings of a pack, newest first; older ones when they are asked for. */
export function ReadingsTable(of: { pack: string; first: Schemas["PackReading"][]; next: string }) {
  const z = useZone();
  const u = useUnits();
  const may = useMay();
  const [gone, setGone] = useState<Schemas["PackReading"]>();
  const older = useInfiniteQuery({
    queryKey: [...keys.pack(of.pack), "older", of.next],
    queryFn: ({ pageParam }) =>
      ask(
        api.GET("/packs/{id}/readings", {
          params: { path: { id: of.pack }, query: { cursor: pageParam } },
        }),
      ),
    initialPageParam: of.next,
    getNextPageParam: (last) => last.next_cursor || undefined,
    enabled: false,
  });
  const rows = [...of.first, ...(older.data?.pages.flatMap((p) => p.readings) ?? [])];
  const more = older.data ? older.hasNextPage : of.next !== "";
  return (
    <>
      <ScrollX label="Readings">
        <Table>
          <thead>
            <tr>
              <th>When</th>
              <th>By</th>
              <th>Where</th>
              <th className="num">Level</th>
              <th className="num">Temperature</th>
              <th className="num">Charge</th>
              <th>Cells</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.id} className={r.withdrawn ? "text-decoration-line-through" : undefined}>
                <td className="fig">{z.both(r.at)}</td>
                <td>{r.by}</td>
                <td>{r.source}</td>
                <td className="num">{r.percent == null ? "" : `${Math.round(r.percent)} %`}</td>
                <td className="num">
                  {r.temperature_c == null ? "" : u.show("temperature", r.temperature_c)}
                </td>
                <td className="num">
                  {r.mah_in != null && `+${Math.round(r.mah_in)} mAh`}
                  {r.mah_out != null && `−${Math.round(r.mah_out)} mAh`}
                  {r.capacity_mah != null && (
                    <div className="soft">
                      holds {Math.round(r.capacity_mah)} ± {Math.round(r.capacity_plus_minus ?? 0)}
                    </div>
                  )}
                </td>
                <td>
                  {r.cell_mv.length > 0 ? (
                    <VerdictMark verdict={r.verdict} />
                  ) : (
                    <span className="soft">not read</span>
                  )}{" "}
                  {r.cell_mv.length > 0 && r.sentence}
                  {r.resistance_mohm.length > 0 && (
                    <div className="soft">
                      <span className="fig">{r.resistance_mohm.map((x) => x.toFixed(1)).join(" ")} mΩ</span>
                      {r.load_a != null && `, under ${r.load_a} A after ${r.load_s} s`}
                    </div>
                  )}
                  {r.withdrawn ? (
                    <div className="d-inline-block">{r.withdrawn}</div>
                  ) : (
                    may("technician") && (
                      <Button size="sm" variant="link" className="d-print-none" onClick={() => setGone(r)}>
                        Withdraw
                      </Button>
                    )
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </ScrollX>
      {gone && <Withdraw pack={of.pack} reading={gone} onClose={() => setGone(undefined)} />}
      {older.isError && <Problem error={older.error} />}
      {more && (
        <Button
          variant="outline-primary"
          className="mt-3"
          disabled={older.isFetching}
          onClick={() => void (older.data ? older.fetchNextPage() : older.refetch())}
        >
          {older.isFetching ? "Reading…" : "Show older readings"}
        </Button>
      )}
    </>
  );
}

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { VerdictMark } from "../parts/Flag";
import { LongList } from "../parts/LongList";
import { inOrder } from "../parts/lists";
import { ScrollX } from "../parts/ScrollX";
import { stockOrders } from "./model";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { EditLine } from "./EditLine";
import { AddPart } from "./AddPart";
import { Approvals, Approve } from "./Approvals";

type Line = Schemas["StockLine"];

/** The shelf: what lies there, what it will be needed for, and what to order by when. */
export function StockList() {
  const q = useQuery({ queryKey: keys.stock, queryFn: () => ask(api.GET("/stock")) });
  const may = useMay();
  const [edit, setEdit] = useState<Line | "new" | null>(null);
  const [adding, setAdding] = useState(false);
  const [approving, setApproving] = useState(false);
  return (
    <QueryView query={q} what="the stock">
      {(s) => (
        <div className="vstack gap-3">
          <Sheet
            title="Stock and reorder"
            aside={
              may("technician") && (
                <div className="d-flex gap-2 flex-wrap d-print-none">
                  <Button variant="outline-primary" onClick={() => setAdding(true)}>
                    Put a part on the shelf
                  </Button>
                  <Button variant="outline-primary" onClick={() => setEdit("new")}>
                    Add a line
                  </Button>
                </div>
              )
            }
          >
            {s.lines.length === 0 ? (
              <Empty>
                Nothing is kept in stock yet. Add a line for each thing that must not run out; what to order
                when follows from what falls due.
              </Empty>
            ) : (
              <LongList
                items={inOrder(s.lines, stockOrders, "")}
                what="the stock"
                orders={stockOrders}
                text={(l) => `${l.name} ${l.kind} ${l.shelf.map((p) => p.serial).join(" ")}`}
              >
                {(lines) => (
                  <ScrollX label="Stock">
                    <Table>
                      <thead>
                        <tr>
                          <th>What</th>
                          <th className="num">There</th>
                          <th className="num">Minimum</th>
                          <th className="num">Delivery</th>
                          <th>Order</th>
                          <th className="num">Price</th>
                          <th className="d-print-none">Change</th>
                        </tr>
                      </thead>
                      <tbody>
                        {lines.map((l) => (
                          <tr key={l.id}>
                            <td>
                              {l.name}
                              {l.shelf.length > 0 && (
                                <div className="soft">
                                  {l.shelf.slice(0, 8).map((p, i) => (
                                    <span key={p.id}>
                                      {i > 0 && ", "}
                                      <Link to={`/part/${p.id}`} className="fig">
                                        {p.serial}
                                      </Link>
                                      {p.hours > 0 && ` (${p.hours.toFixed(1)} h)`}
                                    </span>
                                  ))}
                                  {l.shelf.length > 8 && ` and ${l.shelf.length - 8} more`}
                                </div>
                              )}
                            </td>
                            <td className="num">{l.on_hand}</td>
                            <td className="num">{l.minimum}</td>
                            <td className="num">{l.delivery_days} d</td>
                            <td>
                              <VerdictMark verdict={l.order.verdict} /> {l.order.sentence}
                            </td>
                            <td className="num">
                              {l.price_cents == null ? "" : (l.price_cents / 100).toFixed(2)}
                            </td>
                            <td className="d-print-none">
                              {may("technician") && (
                                <Button size="sm" variant="outline-primary" onClick={() => setEdit(l)}>
                                  Change
                                </Button>
                              )}
                            </td>
                          </tr>
                        ))}
                      </tbody>
                    </Table>
                  </ScrollX>
                )}
              </LongList>
            )}
            <p className="soft mt-2 mb-0">
              Needs come from the day parts fall due; what has no serial number, from what was used in the
              last 90 days.
            </p>
          </Sheet>
          <Approvals s={s} onAdd={may("chief") ? () => setApproving(true) : undefined} />
          {edit && <EditLine line={edit === "new" ? undefined : edit} onClose={() => setEdit(null)} />}
          {adding && <AddPart onClose={() => setAdding(false)} />}
          {approving && <Approve onClose={() => setApproving(false)} />}
        </div>
      )}
    </QueryView>
  );
}

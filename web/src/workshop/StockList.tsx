import { wrote } from "../api/touched";
import { useTypes } from "../api/queries";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, NumberField, SelectField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { LongList } from "../parts/LongList";
import { inOrder } from "../parts/lists";
import { ScrollX } from "../parts/ScrollX";
import { stockOrders } from "./model";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";

type Line = Schemas["StockLine"];

const kindName = (k: string) => k.replace(/-/g, " ");

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
        <div className="stack">
          <Sheet
            title="Stock and reorder"
            aside={
              may("technician") && (
                <div className="d-flex gap-2 flex-wrap no-print">
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
                    <table className="ledger">
                      <thead>
                        <tr>
                          <th>What</th>
                          <th className="num">There</th>
                          <th className="num">Minimum</th>
                          <th className="num">Delivery</th>
                          <th>Order</th>
                          <th className="num">Price</th>
                          <th className="no-print">Change</th>
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
                            <td className="no-print">
                              {may("technician") && (
                                <Button size="sm" variant="outline-primary" onClick={() => setEdit(l)}>
                                  Change
                                </Button>
                              )}
                            </td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
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

function Approvals({ s, onAdd }: { s: Schemas["Stock"]; onAdd?: () => void }) {
  const z = useZone();
  return (
    <Sheet
      title="Third-party parts the crew has approved"
      aside={
        onAdd && (
          <Button variant="outline-primary" className="no-print" onClick={onAdd}>
            Approve a kind
          </Button>
        )
      }
    >
      <p className="soft">
        An identical look proves nothing: without an approval, only the maker&rsquo;s parts are fitted.
      </p>
      {s.approvals.length === 0 && <p className="m-0">None.</p>}
      <ul className="mb-0 ps-3">
        {s.approvals.map((a) => (
          <li key={a.kind + a.type_key}>
            {kindName(a.kind)} for {a.type_key}: {a.note}{" "}
            <span className="soft">
              ({a.by}, {z.date(a.at)})
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

/** The kinds of part that a type carries. */
function kindsOf(types: Schemas["TypeEntry"][] | undefined, key: string): string[] {
  const t = types?.find((x) => x.profile.key === key);
  return [...new Set(t?.positions.map((p) => p.kind) ?? [])];
}

function EditLine({ line, onClose }: { line?: Line; onClose: () => void }) {
  const qc = useQueryClient();
  const types = useTypes();
  const [id] = useState(() => line?.id ?? newId());
  const f = useDraftForm(`stock-${line?.id ?? "new"}`, {
    name: line?.name ?? "",
    type_key: line?.type_key ?? "",
    kind: line?.kind ?? "",
    quantity: String(line?.on_hand ?? 0),
    minimum: String(line?.minimum ?? 1),
    delivery_days: String(line?.delivery_days ?? 14),
    price: line?.price_cents == null ? "" : (line.price_cents / 100).toFixed(2),
    source: line?.source ?? "",
  });
  const key = f.watch("type_key");
  const send = f.submit(async (v) => {
    let bad = false;
    const whole = (name: "quantity" | "minimum" | "delivery_days", max: number) => {
      const p = parseInRange(v[name], 0, max, "");
      if (p.ok && Number.isInteger(p.value)) return p.value;
      f.setError(name, { message: `Enter a whole number from 0 to ${max}.` });
      bad = true;
      return 0;
    };
    const quantity = v.kind ? 0 : whole("quantity", 100000);
    const minimum = whole("minimum", 10000);
    const delivery = whole("delivery_days", 730);
    const price = parseInRange(v.price, 0, 1000000, "");
    if (!price.ok && !price.empty) {
      f.setError("price", { message: price.sentence });
      bad = true;
    }
    if (bad) return;
    const fresh = await ask(
      api.PUT("/stock", {
        body: {
          id,
          name: v.name,
          kind: v.kind,
          type_key: v.kind ? v.type_key : "",
          quantity,
          minimum,
          delivery_days: delivery,
          price_cents: price.ok ? Math.round(price.value * 100) : null,
          source: v.source,
          version: line?.version ?? 0,
        },
      }),
    );
    qc.setQueryData(keys.stock, fresh);
    onClose();
  });
  return (
    <Dialog title={line ? `Change: ${line.name}` : "Add a stock line"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="What it is" {...f.register("name")} wrong={f.wrong("name")} />
        <SelectField
          label="For a type"
          {...f.register("type_key")}
          wrong={f.wrong("type_key")}
          hint="Parts with a serial number belong to a type and are counted from the shelf."
        >
          <option value="">Any: it has no serial number</option>
          {types.data?.types.map((t) => (
            <option key={t.profile.key} value={t.profile.key}>
              {t.profile.name}
            </option>
          ))}
        </SelectField>
        {key && (
          <SelectField label="Kind of part" {...f.register("kind")} wrong={f.wrong("kind")}>
            <option value="">None: it is counted here</option>
            {kindsOf(types.data?.types, key).map((k) => (
              <option key={k} value={k}>
                {kindName(k)}
              </option>
            ))}
          </SelectField>
        )}
        {!f.watch("kind") && (
          <NumberField
            label="How many are there"
            unit=""
            {...f.register("quantity")}
            wrong={f.wrong("quantity")}
          />
        )}
        <NumberField label="Never fewer than" unit="" {...f.register("minimum")} wrong={f.wrong("minimum")} />
        <NumberField
          label="Delivery takes"
          unit="days"
          {...f.register("delivery_days")}
          wrong={f.wrong("delivery_days")}
        />
        <NumberField label="Price of one" unit="" {...f.register("price")} wrong={f.wrong("price")} />
        <TextField label="Where it is bought" {...f.register("source")} wrong={f.wrong("source")} />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

function AddPart({ onClose }: { onClose: () => void }) {
  const qc = useQueryClient();
  const types = useTypes();
  const [id, setId] = useState(newId);
  const [saved, setSaved] = useState("");
  const f = useDraftForm("new-part", {
    type_key: "",
    kind: "",
    serial: "",
    batch: "",
    source: "maker" as "maker" | "third-party",
    price: "",
  });
  const send = f.submit(async (v) => {
    setSaved("");
    const price = parseInRange(v.price, 0, 1000000, "");
    if (!price.ok && !price.empty) {
      f.setError("price", { message: price.sentence });
      return;
    }
    const p = await ask(
      api.POST("/parts", {
        body: {
          id,
          kind: v.kind,
          type_key: v.type_key,
          serial: v.serial,
          batch: v.batch,
          source: v.source,
          price_cents: price.ok ? Math.round(price.value * 100) : null,
        },
      }),
    );
    setId(newId());
    setSaved(`${p.serial} is on the shelf. Enter the next, or close.`);
    f.setValue("serial", "");
    await wrote(qc, "stock_lines", "part_approvals");
  });
  return (
    <Dialog title="Put a part on the shelf" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        {saved && <p role="status">{saved}</p>}
        <SelectField label="For which type" {...f.register("type_key")} wrong={f.wrong("type_key")}>
          <option value="">Choose</option>
          {types.data?.types.map((t) => (
            <option key={t.profile.key} value={t.profile.key}>
              {t.profile.name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Kind" {...f.register("kind")} wrong={f.wrong("kind")}>
          <option value="">Choose</option>
          {kindsOf(types.data?.types, f.watch("type_key")).map((k) => (
            <option key={k} value={k}>
              {kindName(k)}
            </option>
          ))}
        </SelectField>
        <TextField label="Serial number" {...f.register("serial")} wrong={f.wrong("serial")} />
        <TextField label="Batch" {...f.register("batch")} wrong={f.wrong("batch")} />
        <SelectField label="From" {...f.register("source")} wrong={f.wrong("source")}>
          <option value="maker">The maker</option>
          <option value="third-party">A third party</option>
        </SelectField>
        <NumberField label="Price" unit="" {...f.register("price")} wrong={f.wrong("price")} />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Put it on the shelf
        </Button>
      </form>
    </Dialog>
  );
}

function Approve({ onClose }: { onClose: () => void }) {
  const qc = useQueryClient();
  const types = useTypes();
  const f = useDraftForm("approve-parts", { type_key: "", kind: "", note: "" });
  const send = f.submit(async (v) => {
    await ask(api.POST("/approvals", { body: v }));
    f.reset({ type_key: "", kind: "", note: "" });
    onClose();
    await wrote(qc, "stock_lines", "part_approvals");
  });
  return (
    <Dialog title="Approve third-party parts" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="For which type" {...f.register("type_key")} wrong={f.wrong("type_key")}>
          <option value="">Choose</option>
          {types.data?.types.map((t) => (
            <option key={t.profile.key} value={t.profile.key}>
              {t.profile.name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Kind" {...f.register("kind")} wrong={f.wrong("kind")}>
          <option value="">Choose</option>
          {kindsOf(types.data?.types, f.watch("type_key")).map((k) => (
            <option key={k} value={k}>
              {kindName(k)}
            </option>
          ))}
        </SelectField>
        <AreaField
          label="What was measured or known, and by whom"
          {...f.register("note")}
          wrong={f.wrong("note")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Approve
        </Button>
      </form>
    </Dialog>
  );
}

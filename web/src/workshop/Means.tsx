import { zodResolver } from "@hookform/resolvers/zod";
import { takeForm } from "./forms";
import { useUseStock } from "./api";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { NumberField, SelectField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";

type Order = Schemas["WorkOrder"];

/** Tools, parts needed and what was taken from the shelf. */
export function Means({ o, works }: { o: Order; works: boolean }) {
  return (
    <Sheet title="Tools and parts">
      {o.tools.length > 0 && (
        <>
          <h3>Tools</h3>
          <ul className="ps-3">
            {o.tools.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </>
      )}
      {o.parts.length > 0 && (
        <p>
          Parts needed: {o.parts.map((p) => `${p.count} × ${p.kind.replace(/-/g, " ")}`).join(", ")}. Parts
          with a serial number are{" "}
          <Link to={`/fleet/${o.aircraft_id}?station=${o.station}`}>fitted at their position</Link>, which
          takes them from the shelf.
        </p>
      )}
      <h3>Taken from the shelf</h3>
      {o.used.length === 0 && <p className="soft">Nothing yet.</p>}
      <ul className="ps-3">
        {o.used.map((x) => (
          <li key={x.id}>
            {x.quantity} × {x.name} <span className="soft">({x.by})</span>
          </li>
        ))}
      </ul>
      {works && <TakeStock o={o} />}
    </Sheet>
  );
}

function TakeStock({ o }: { o: Order }) {
  const take = useUseStock();
  const qc = useQueryClient();
  const stock = useQuery({ queryKey: keys.stock, queryFn: () => ask(api.GET("/stock")) });
  const [id, setId] = useState(newId);
  const f = useDraftForm(`take-${o.id}`, { line_id: "", quantity: "1" }, [], zodResolver(takeForm));
  const lines = stock.data?.lines.filter((l) => l.kind === "") ?? [];
  if (lines.length === 0) return null;
  const send = f.submit(async (v) => {
    const fresh = await take.mutateAsync({ id: o.id, body: { id, ...v } });
    qc.setQueryData(keys.order(o.id), fresh);
    setId(newId());
    f.reset({ line_id: "", quantity: "1" });
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <SelectField label="From stock" {...f.register("line_id")} wrong={f.wrong("line_id")}>
        <option value="">Choose</option>
        {lines.map((l) => (
          <option key={l.id} value={l.id}>
            {l.name} ({l.on_hand} there)
          </option>
        ))}
      </SelectField>
      <NumberField label="How many" unit="" {...f.register("quantity")} wrong={f.wrong("quantity")} />
      <Button type="submit" size="sm" variant="outline-primary">
        Take it
      </Button>
    </form>
  );
}

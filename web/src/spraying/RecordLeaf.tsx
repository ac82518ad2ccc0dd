import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import { z } from "zod";
import { newId } from "../api/client";
import { useMay, useSession } from "../parts/session";
import { AreaField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Sheet } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { useRecords, useSignRecord, type Plan } from "./api";
import { recordLines } from "./model";

const told = z.object({
  neighbours: z
    .string()
    .trim()
    .min(1, "Say who was told, or that there is nobody.")
    .max(400, "At most 400 characters."),
  note: z.string().max(1000, "At most 1000 characters."),
});

/** What was applied, as authorities ask for it: made from plan, flights, papers and weather, and signed. */
export function RecordLeaf({ p }: { p: Plan }) {
  const q = useRecords(p.job_id, p.aircraft_id);
  const z_ = useZone();
  const may = useMay()("pilot");
  return (
    <QueryView query={q} what="the spray record">
      {(d) => (
        <div className="vstack gap-3">
          <Sheet title="Not signed yet">
            <Lines lines={recordLines(d.draft, z_.both)} />
            {d.missing.map((m) => (
              <div key={m} className="judged watch mb-1">
                {m}
              </div>
            ))}
            {may && d.missing.length === 0 && <Sign p={p} ha={d.draft.area_ha} />}
          </Sheet>
          {d.signed.map((s) => (
            <Sheet key={s.id} title={`Signed ${z_.both(s.at)} by ${s.by}`}>
              <Lines lines={recordLines(s.record, z_.both)} />
            </Sheet>
          ))}
          <p className="d-print-none">
            <a
              className="btn btn-outline-primary"
              href="/api/v1/spray-records.csv"
              download="spray-records.csv"
            >
              All signed records as CSV
            </a>
          </p>
        </div>
      )}
    </QueryView>
  );
}

function Lines({ lines }: { lines: [string, string][] }) {
  return (
    <Table className="mb-3">
      <tbody>
        {lines.map(([name, value]) => (
          <tr key={name}>
            <td className="soft">{name}</td>
            <td>{value || "not known"}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function Sign({ p, ha }: { p: Plan; ha: number }) {
  const { person } = useSession();
  const sign = useSignRecord(p.job_id, p.aircraft_id);
  const [id] = useState(newId);
  const [pin, setPin] = useState("");
  const f = useDraftForm(`record-${p.id}`, { neighbours: "", note: "" }, [], zodResolver(told));
  const send = f.submit((v) => sign.mutateAsync({ ...v, id, pin }));
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <TextField label="Neighbours told" {...f.register("neighbours")} wrong={f.wrong("neighbours")} />
      <AreaField label="Note" {...f.register("note")} wrong={f.wrong("note")} />
      <PinPad
        value={pin}
        onChange={setPin}
        statement={`${ha.toFixed(2)} ha were sprayed as it stands here.`}
        who={person.name}
      />
      <Button type="submit" className="btn-big" disabled={pin.length < 4 || sign.isPending}>
        {sign.isPending ? "Signing…" : "Sign the record"}
      </Button>
    </form>
  );
}

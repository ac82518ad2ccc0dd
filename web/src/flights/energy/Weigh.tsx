import { useWeighAircraft } from "../api";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { z } from "zod";
import { newId, type Schemas } from "../../api/client";
import { Dialog } from "../../parts/Dialog";
import { DateField } from "../../parts/DateField";
import { NumberField, SelectField, TextField } from "../../parts/Field";
import { useDraftForm } from "../../parts/form";
import { Problem } from "../../parts/states";
import { serverIso, useZone } from "../../parts/time";
import { typedNumber } from "../../parts/typed";
import { useUnits } from "../../parts/units";
import { isDay } from "../../parts/when";
import { partWords } from "./model";

interface WeighProps {
  aircraft: string;
  weighed: Schemas["Weighing"][];
  may: boolean;
}

/** What was weighed, when and on which scale, and the way to weigh again. */
export function Weigh({ aircraft, weighed, may }: WeighProps) {
  const u = useUnits();
  const [open, setOpen] = useState(false);
  return (
    <>
      {weighed.map((w) => (
        <p key={w.part} className="soft mb-1">
          {partWords[w.part]} weighed {u.show("mass", w.kg)} on {w.on}, {w.scale}, {w.by}.
        </p>
      ))}
      {weighed.length === 0 && (
        <p className="soft mb-1">Nothing of it was weighed: the masses are those of the type&rsquo;s file.</p>
      )}
      {may && (
        <Button variant="outline-primary" className="d-print-none" onClick={() => setOpen(true)}>
          Weighed
        </Button>
      )}
      {open && (
        <WeighDialog aircraft={aircraft} onClose={() => setOpen(false)} last={weighed[0]?.scale ?? ""} />
      )}
    </>
  );
}

function WeighDialog({ aircraft, onClose, last }: { aircraft: string; onClose: () => void; last: string }) {
  const u = useUnits();
  const zone = useZone();
  const schema = z.object({
    part: z.enum(["empty", "packs"]),
    kg: typedNumber(u.value("mass", 0.01), u.value("mass", 1000), u.label("mass"), "Enter what it weighs."),
    scale: z.string().trim().min(2, "Name the scale.").max(60, "At most 60 characters."),
    on: z.string().refine(isDay, "Enter the day as 2026-06-10."),
  });
  const f = useDraftForm(
    `weigh-${aircraft}`,
    { part: "empty" as "empty" | "packs", kg: "", scale: last, on: zone.date(serverIso(Date.now())) },
    [],
    zodResolver(schema),
  );
  const put = useWeighAircraft();
  const [id] = useState(newId);
  const send = f.submit(async (v) => {
    await put.mutateAsync({ id: aircraft, body: { id, ...v, kg: u.toBase("mass", v.kg ?? 0) } });
    onClose();
  });
  return (
    <Dialog title="Weighed" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="What" {...f.register("part")}>
          <option value="empty">{partWords.empty}</option>
          <option value="packs">{partWords.packs}</option>
        </SelectField>
        <NumberField label="It weighs" unit={u.label("mass")} {...f.register("kg")} wrong={f.wrong("kg")} />
        <TextField label="Scale" {...f.register("scale")} wrong={f.wrong("scale")} />
        <DateField label="On" {...f.register("on")} wrong={f.wrong("on")} />
        <Button type="submit" disabled={put.isPending}>
          {put.isPending ? "Putting on record…" : "Put on record"}
        </Button>
      </form>
    </Dialog>
  );
}

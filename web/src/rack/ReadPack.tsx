import { zodResolver } from "@hookform/resolvers/zod";
import { useMemo } from "react";
import { useReadPack } from "./api";
import { blankReading, readingForm } from "./reading";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { CellsField } from "../parts/CellsField";
import { NumberField, SelectField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";

/** Reads a pack: cells, level, warmth, and what a charger measured. */
export function ReadPack({ p }: { p: Schemas["Pack"] }) {
  const u = useUnits();
  const [id, setId] = useState(newId);
  const [saved, setSaved] = useState("");
  const schema = useMemo(() => readingForm(u), [u]);
  const blank = blankReading(p.cells);
  const read = useReadPack(p.id);
  const f = useDraftForm(`read-${p.id}`, blank, [], zodResolver(schema));
  const send = f.submit(async (reading) => {
    setSaved("");
    const r = await read.mutateAsync({ id, ...reading });
    setSaved(r.sentence);
    setId(newId());
    f.reset(blank);
  });
  return (
    <Sheet title="Read it" at="reading">
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        {saved && <p role="status">Saved. {saved}</p>}
        <CellsField
          label="Cells"
          count={p.cells}
          values={f.watch("cell_mv")}
          onChange={(v) => f.setValue("cell_mv", v, { shouldDirty: true })}
          wrong={f.wrong("cell_mv")}
        />
        <div className="two" style={{ gap: "0 1rem" }}>
          <NumberField
            label="Rested without load"
            unit="min"
            {...f.register("rested_min")}
            wrong={f.wrong("rested_min")}
          />
          <NumberField
            label="Level it shows"
            unit="%"
            {...f.register("percent")}
            wrong={f.wrong("percent")}
          />
          <NumberField
            label="Temperature"
            unit={u.label("temperature")}
            {...f.register("temperature_c")}
            wrong={f.wrong("temperature_c")}
          />
        </div>
        <details className="mb-2">
          <summary className="tap py-2">Charge and resistance, from a charger</summary>
          <div className="two" style={{ gap: "0 1rem" }}>
            <NumberField label="Charge" unit="mAh" {...f.register("mah")} wrong={f.wrong("mah")} />
            <SelectField label="It went" {...f.register("way")}>
              <option value="in">in</option>
              <option value="out">out</option>
            </SelectField>
            <NumberField
              label="From a level of"
              unit="%"
              {...f.register("start_percent")}
              wrong={f.wrong("start_percent")}
            />
            <NumberField label="To" unit="%" {...f.register("end_percent")} wrong={f.wrong("end_percent")} />
          </div>
          <CellsField
            label="Resistance"
            unit="mΩ"
            name={(i) => `Resistance ${i + 1}`}
            count={p.cells}
            values={f.watch("mohm")}
            onChange={(v) => f.setValue("mohm", v, { shouldDirty: true })}
            wrong={f.wrong("mohm")}
          />
          <CellsField
            label="Or cells under a load, after those at rest above"
            name={(i) => `Cell ${i + 1} under load`}
            count={p.cells}
            values={f.watch("loaded")}
            onChange={(v) => f.setValue("loaded", v, { shouldDirty: true })}
            wrong={f.wrong("loaded")}
          />
          <div className="two" style={{ gap: "0 1rem" }}>
            <NumberField label="Load" unit="A" {...f.register("amps")} wrong={f.wrong("amps")} />
            <NumberField label="On for" unit="s" {...f.register("load_s")} wrong={f.wrong("load_s")} />
          </div>
          <p className="soft">
            Capacity is told by at least 60 points between the ends, or 40 with both off the flat part of the
            curve.
          </p>
        </details>
        <Button type="submit" disabled={read.isPending}>
          Save the reading
        </Button>
      </form>
    </Sheet>
  );
}

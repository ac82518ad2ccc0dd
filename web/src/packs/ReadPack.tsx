import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { CellsField, readCells } from "../parts/CellsField";
import { NumberField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";

export function ReadPack({ p }: { p: Schemas["Pack"] }) {
  const qc = useQueryClient();
  const u = useUnits();
  const [id, setId] = useState(newId);
  const [saved, setSaved] = useState("");
  const blank = { cell_mv: Array<string>(p.cells).fill(""), rested_min: "", percent: "", temperature_c: "" };
  const f = useDraftForm(`read-${p.id}`, blank);
  const send = f.submit(async (v) => {
    setSaved("");
    const cells = readCells(v.cell_mv);
    if (!cells.ok) {
      f.setError("cell_mv", { message: cells.sentence });
      return;
    }
    let bad = false;
    const optional = (
      name: "rested_min" | "percent" | "temperature_c",
      min: number,
      max: number,
      unit: string,
    ) => {
      const r = parseInRange(v[name], min, max, unit);
      if (r.ok) return r.value;
      if (!r.empty) {
        f.setError(name, { message: r.sentence });
        bad = true;
      }
      return null;
    };
    const rested = optional("rested_min", 0, 100000, "min");
    const percent = optional("percent", 0, 100, "%");
    const temp = optional(
      "temperature_c",
      u.value("temperature", -40),
      u.value("temperature", 120),
      u.label("temperature"),
    );
    if (bad) return;
    const r = await ask(
      api.POST("/packs/{id}/readings", {
        params: { path: { id: p.id } },
        body: {
          id,
          cell_mv: cells.mv,
          rested_min: rested,
          percent,
          temperature_c: temp === null ? null : u.toBase("temperature", temp),
        },
      }),
    );
    setSaved(r.sentence);
    setId(newId());
    f.reset(blank);
    await qc.invalidateQueries();
  });
  return (
    <Sheet title="Read it">
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
        <Button type="submit" disabled={f.formState.isSubmitting}>
          Save the reading
        </Button>
      </form>
    </Sheet>
  );
}

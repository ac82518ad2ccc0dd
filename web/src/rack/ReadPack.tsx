import { wrote } from "../api/touched";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { CellsField } from "../parts/CellsField";
import { readCells } from "../parts/cells";
import { NumberField, SelectField } from "../parts/Field";
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
  const blank = {
    cell_mv: Array<string>(p.cells).fill(""),
    rested_min: "",
    percent: "",
    temperature_c: "",
    mohm: Array<string>(p.cells).fill(""),
    loaded: Array<string>(p.cells).fill(""),
    amps: "",
    load_s: "",
    mah: "",
    way: "in" as "in" | "out",
    start_percent: "",
    end_percent: "",
  };
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
      name:
        | "rested_min"
        | "percent"
        | "temperature_c"
        | "mah"
        | "start_percent"
        | "end_percent"
        | "amps"
        | "load_s",
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
    const mah = optional("mah", 0, 400000, "mAh");
    const from = optional("start_percent", 0, 100, "%");
    const to = optional("end_percent", 0, 100, "%");
    const mohm: number[] = [];
    if (v.mohm.some((t) => t.trim() !== ""))
      for (let i = 0; i < p.cells; i++) {
        const r = parseInRange(v.mohm[i] ?? "", 0.01, 1000, "mΩ");
        if (r.ok) mohm.push(r.value);
        else {
          f.setError("mohm", { message: `Cell ${i + 1}: ${r.empty ? "enter a value." : r.sentence}` });
          bad = true;
          break;
        }
      }
    const loaded = readCells(v.loaded);
    let load: Schemas["NewReading"]["under_load"] = null;
    if (!loaded.ok) {
      f.setError("loaded", { message: loaded.sentence });
      bad = true;
    } else if (loaded.mv.length > 0) {
      const amps = optional("amps", 0.5, 1000, "A");
      const seconds = optional("load_s", 1, 600, "s");
      if (amps === null || seconds === null) {
        if (!bad) f.setError("amps", { message: "Enter the load and for how long it was on." });
        bad = true;
      } else load = { cell_mv: loaded.mv, amps, seconds };
    }
    if (bad) return;
    const r = await ask(
      api.POST("/packs/{id}/readings", {
        params: { path: { id: p.id } },
        body: {
          id,
          cell_mv: cells.mv,
          rested_min: rested,
          percent,
          resistance_mohm: mohm.length ? mohm : null,
          under_load: load,
          mah_in: v.way === "in" ? mah : null,
          mah_out: v.way === "out" ? mah : null,
          start_percent: mah === null ? null : from,
          end_percent: mah === null ? null : to,
          temperature_c: temp === null ? null : u.toBase("temperature", temp),
        },
      }),
    );
    setSaved(r.sentence);
    setId(newId());
    f.reset(blank);
    await wrote(qc, "packs", "pack_readings", "pack_outlooks");
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
          <summary>Charge and resistance, from a charger</summary>
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
        <Button type="submit" disabled={f.formState.isSubmitting}>
          Save the reading
        </Button>
      </form>
    </Sheet>
  );
}

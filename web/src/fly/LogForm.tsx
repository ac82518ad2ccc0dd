import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useAbout } from "../outbox/hooks";
import { drop } from "../outbox/store";
import { CellsField } from "../parts/CellsField";
import { readCells } from "../parts/cells";
import { AreaField, NumberField } from "../parts/Field";
import { keepDraft, useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { Fold } from "../parts/Fold";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";
import { logDraft, useFlightPress } from "./api";
import { SignFields } from "./SignFields";

interface PackTyped {
  percent: string;
  temp: string;
  cells: string[];
}

/** After landing: landings, motors, packs, remarks. What is known is filled in. */
export function LogForm({ f }: { f: Schemas["Flight"] }) {
  const press = useFlightPress(f.id);
  const { refused } = useAbout(f.id);
  const u = useUnits();
  const n = f.type.motors;
  const form = useDraftForm(logDraft(f.id), {
    landings: "1",
    warmth_c: [] as string[],
    packs: f.packs.map((): PackTyped => ({ percent: "", temp: "", cells: [] })),
    litres: "",
    remarks: "",
    next_time: "",
    signs: [] as Schemas["FlightSign"][],
  });
  const tank = f.type.profile.tank_l ?? 0;
  const send = form.submit(async (v) => {
    let bad = false;
    const fail = (name: "landings" | "warmth_c" | "packs" | "litres", message: string) => {
      form.setError(name, { message });
      bad = true;
    };
    const landings = parseInRange(v.landings, 1, 50, "landings");
    if (!landings.ok || !Number.isInteger(landings.value))
      fail("landings", "Enter a whole number of landings, 1 to 50.");
    const deg = u.label("temperature");
    const range = [u.value("temperature", -30), u.value("temperature", 120)] as const;
    const warmth = Array.from({ length: n }, (_, i) => parseInRange(v.warmth_c[i] ?? "", ...range, deg));
    const wrongMotor = warmth.findIndex((w) => !w.ok);
    if (wrongMotor >= 0) {
      const w = warmth[wrongMotor]!;
      fail(
        "warmth_c",
        `Motor ${wrongMotor + 1}: ${w.ok || w.empty ? "feel or measure it and enter its warmth." : w.sentence}`,
      );
    }
    const packs: Schemas["LandedPack"][] = [];
    f.packs.forEach((p, i) => {
      const t = v.packs[i]!;
      const percent = parseInRange(t.percent, 0, 100, "%");
      const temp = parseInRange(t.temp, u.value("temperature", -40), u.value("temperature", 120), deg);
      const cells = readCells(t.cells.length ? t.cells : [""]);
      if (!temp.ok) fail("packs", `${p.label}: ${temp.empty ? "enter its temperature." : temp.sentence}`);
      else if (!percent.ok && !percent.empty) fail("packs", `${p.label}: ${percent.sentence}`);
      else if (!cells.ok) fail("packs", `${p.label}: ${cells.sentence}`);
      else if (!percent.ok && cells.mv.length === 0)
        fail("packs", `${p.label}: enter the level it shows, or its cells.`);
      else
        packs.push({
          pack_id: p.id,
          percent: percent.ok ? percent.value : null,
          cell_mv: cells.mv.length ? cells.mv : null,
          temperature_c: u.toBase("temperature", temp.value),
        });
    });
    const litres = parseInRange(v.litres, 0, u.value("volume", 100000), u.label("volume"));
    if (tank > 0 && !litres.ok)
      fail("litres", litres.empty ? "Enter what was sprayed; 0 when nothing was." : litres.sentence);
    if (bad || !landings.ok) return keepDraft;
    void drop(...refused.filter((p) => p.kind === "fly.log").map((p) => p.id)); // this log stands in its place
    press("fly.log", {
      landings: landings.value,
      warmth_c: warmth.map((w) => (w.ok ? u.toBase("temperature", w.value) : 0)),
      packs,
      litres: litres.ok ? u.toBase("volume", litres.value) : null,
      remarks: v.remarks,
      next_time: v.next_time,
      signs: v.signs,
    });
    return keepDraft;
  });
  return (
    <form onSubmit={send} noValidate>
      {form.root && <Problem error={new Error(form.root)} />}
      <div className="two">
        <Sheet title={n > 1 ? "Motors" : "Motor"}>
          <CellsField
            label={n > 1 ? "Warmth of each" : "Warmth"}
            unit={u.label("temperature")}
            name={(i) => `Motor ${i + 1}`}
            count={n}
            values={form.watch("warmth_c")}
            onChange={(w) => form.setValue("warmth_c", w, { shouldDirty: true })}
            wrong={form.wrong("warmth_c")}
          />
          <p className="soft mb-0">
            One that is {f.type.profile.limits.warmth_outlier_c} °C above its sisters grounds the aircraft
            until the cause is found.
          </p>
        </Sheet>
        <Sheet title={f.packs.length > 1 ? "Packs" : "Pack"}>
          {form.wrong("packs") && (
            <div className="field">
              <div className="wrong" role="alert">
                {form.wrong("packs")}
              </div>
            </div>
          )}
          {f.packs.map((p, i) => (
            <fieldset key={p.id}>
              <legend className="fs-6 fw-semibold mb-1">{p.label}</legend>
              <div className="two" style={{ gap: "0 1rem" }}>
                <NumberField
                  label={`Level of ${p.label}`}
                  unit="%"
                  {...form.register(`packs.${i}.percent`)}
                />
                <NumberField
                  label={`Temperature of ${p.label}`}
                  unit={u.label("temperature")}
                  {...form.register(`packs.${i}.temp`)}
                />
              </div>
              <Fold
                summary="Cells instead of a level"
                open={(form.watch(`packs.${i}.cells`) ?? []).some((c) => c !== "")}
              >
                <CellsField
                  label={`Cells of ${p.label}`}
                  count={p.cells}
                  values={form.watch(`packs.${i}.cells`)}
                  onChange={(c) => form.setValue(`packs.${i}.cells`, c)}
                />
              </Fold>
            </fieldset>
          ))}
        </Sheet>
      </div>
      <div className="mt-3">
        <Sheet title="Log">
          <NumberField
            label="Landings"
            unit=""
            {...form.register("landings")}
            wrong={form.wrong("landings")}
          />
          {tank > 0 && (
            <NumberField
              label="Sprayed"
              unit={u.label("volume")}
              {...form.register("litres")}
              wrong={form.wrong("litres")}
            />
          )}
          <SignFields value={form.watch("signs")} onChange={(s) => form.setValue("signs", s)} />
          <AreaField
            label="Remarks: what was odd"
            {...form.register("remarks")}
            wrong={form.wrong("remarks")}
            maxLength={2000}
          />
          <AreaField
            label="To change next time"
            {...form.register("next_time")}
            wrong={form.wrong("next_time")}
            maxLength={1000}
            hint="The next walk of this aircraft shows it."
          />
        </Sheet>
      </div>
      <div className="thumb">
        {form.first && (
          <div className="judged stop" role="alert">
            {form.first}
          </div>
        )}
        <Button type="submit" className="btn-big">
          Log the flight
        </Button>
      </div>
    </form>
  );
}

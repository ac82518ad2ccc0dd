import { zodResolver } from "@hookform/resolvers/zod";
import { useMemo } from "react";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useAbout } from "../outbox/hooks";
import { drop } from "../outbox/store";
import { CellsField } from "../parts/CellsField";
import { AreaField, NumberField } from "../parts/Field";
import { keepDraft, useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";
import { logDraft, useFlightPress } from "./api";
import { LandedPacks } from "./LandedPacks";
import { alikeAll, blankLog, logForm } from "./logform";
import { SignFields } from "./SignFields";
import { Thumb } from "../parts/Thumb";

/** After landing: landings, motors, packs, remarks. What is known is filled in. */
export function LogForm({ f }: { f: Schemas["Flight"] }) {
  const press = useFlightPress(f.id);
  const { refused } = useAbout(f.id);
  const u = useUnits();
  const n = f.type.motors;
  const schema = useMemo(() => logForm(f, u), [f, u]);
  const form = useDraftForm(logDraft(f.id), blankLog(f), [], zodResolver(schema));
  const send = form.submit(async (log) => {
    void drop(...refused.filter((p) => p.kind === "fly.log").map((p) => p.id)); // this log stands in its place
    press("fly.log", log);
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
          {n > 1 && (
            <Button
              variant="outline-primary"
              className="mb-2"
              disabled={!form.watch("warmth_c")[0]?.trim()}
              onClick={() =>
                form.setValue("warmth_c", alikeAll(form.watch("warmth_c"), n), { shouldDirty: true })
              }
            >
              All feel like motor 1
            </Button>
          )}
          <p className="soft mb-0">
            One that is {f.type.profile.limits.warmth_outlier_c} °C above its sisters grounds the aircraft
            until the cause is found.
          </p>
        </Sheet>
        <LandedPacks
          packs={f.packs}
          register={form.register}
          control={form.control}
          wrong={(name) => form.wrong(name)}
        />
      </div>
      <div className="mt-3">
        <Sheet title="Log">
          <NumberField
            label="Landings"
            unit=""
            {...form.register("landings")}
            wrong={form.wrong("landings")}
          />
          {(f.type.profile.tank_l ?? 0) > 0 && (
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
      <Thumb>
        {form.first && (
          <div className="judged stop" role="alert">
            {form.first}
          </div>
        )}
        <Button type="submit" className="btn-big">
          Log the flight
        </Button>
      </Thumb>
    </form>
  );
}

import { useCorrectFlight } from "./api";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useSession } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, NumberField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";

/** Corrects a logged flight by a new entry; what was logged stays readable. */
export function CorrectFlight({ f, onClose }: { f: Schemas["Flight"]; onClose: () => void }) {
  const correctFlight = useCorrectFlight();
  const qc = useQueryClient();
  const u = useUnits();
  const { person } = useSession();
  const [id] = useState(newId);
  const tank = (f.type.profile.tank_l ?? 0) > 0;
  const form = useDraftForm(
    `correct-${f.id}`,
    {
      minutes: String(Math.floor(f.seconds / 60)),
      seconds: String(f.seconds % 60),
      landings: String(f.landings),
      litres: String(u.value("volume", f.litres)),
      reason: "",
      pin: "",
    },
    ["pin"],
  );
  const send = form.submit(async (v) => {
    let bad = false;
    const whole = (name: "minutes" | "seconds" | "landings", min: number, max: number) => {
      const p = parseInRange(v[name], min, max, "");
      if (p.ok && Number.isInteger(p.value)) return p.value;
      form.setError(name, { message: `Enter a whole number from ${min} to ${max}.` });
      bad = true;
      return 0;
    };
    const minutes = whole("minutes", 0, 1439);
    const seconds = whole("seconds", 0, 59);
    const landings = whole("landings", 1, 50);
    const litres = parseInRange(v.litres, 0, u.value("volume", 100000), u.label("volume"));
    if (tank && !litres.ok) {
      form.setError("litres", { message: litres.empty ? "Enter what was sprayed." : litres.sentence });
      bad = true;
    }
    if (bad) return;
    try {
      const fresh = await correctFlight.mutateAsync({
        id: f.id,
        body: {
          id,
          seconds: minutes * 60 + seconds,
          landings,
          litres: tank && litres.ok ? u.toBase("volume", litres.value) : 0,
          reason: v.reason,
          pin: v.pin,
        },
      });
      qc.setQueryData(keys.flight(f.id), fresh);
      onClose();
    } finally {
      form.setValue("pin", "");
    }
  });
  return (
    <Dialog title="Correct this flight" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {form.root && <Problem error={new Error(form.root)} />}
        <p>The counters of everything that flew follow. What was logged before stays in the records.</p>
        <div className="two" style={{ gap: "0 1rem" }}>
          <NumberField
            label="Minutes"
            unit="min"
            {...form.register("minutes")}
            wrong={form.wrong("minutes")}
          />
          <NumberField label="Seconds" unit="s" {...form.register("seconds")} wrong={form.wrong("seconds")} />
          <NumberField
            label="Landings"
            unit=""
            {...form.register("landings")}
            wrong={form.wrong("landings")}
          />
          {tank && (
            <NumberField
              label="Sprayed"
              unit={u.label("volume")}
              {...form.register("litres")}
              wrong={form.wrong("litres")}
            />
          )}
        </div>
        <AreaField label="Why" {...form.register("reason")} wrong={form.wrong("reason")} />
        <PinPad
          value={form.watch("pin")}
          onChange={(v) => form.setValue("pin", v)}
          who={person.name}
          statement="I correct this flight; what was logged before stays readable."
          wrong={form.wrong("pin")}
        />
        <Button type="submit" className="w-100" disabled={form.formState.isSubmitting}>
          Sign the correction
        </Button>
      </form>
    </Dialog>
  );
}

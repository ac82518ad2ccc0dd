import { zodResolver } from "@hookform/resolvers/zod";
import { correctionForm } from "./logform";
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
  const [correction] = useState(() => correctionForm(f, u));
  const form = useDraftForm(`correct-${f.id}`, correction.shown, ["pin"], zodResolver(correction.schema));
  const send = form.submit(async (v) => {
    try {
      const fresh = await correctFlight.mutateAsync({
        id: f.id,
        body: { id, ...v },
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

import { useLogPractice } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { DateField } from "../parts/DateField";
import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { parseInRange } from "../parts/number";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";
import { serverNow, useZone } from "../parts/time";

type Readiness = Schemas["Readiness"];

/** Puts practice on record: packs, landings, what was flown. */
export function PracticeForm({ person, d, onDone }: { person: string; d: Readiness; onDone: () => void }) {
  const logPractice = useLogPractice();
  const z = useZone();
  const { person: me } = useSession();
  const [id] = useState(newId);
  const f = useDraftForm(
    `practice-${person}`,
    {
      type_key: d.types[0]?.type_key ?? "",
      phase: "empty" as "empty" | "loaded",
      packs: "1",
      landings: "",
      nose_in: false,
      flown_on: z.date(new Date(serverNow()).toISOString()),
      note: "",
      pin: "",
    },
    ["pin"],
  );
  const v = f.watch();
  const tank = d.types.find((t) => t.type_key === v.type_key)?.tank ?? false;
  const send = f.submit(async (x) => {
    const packs = parseInRange(x.packs, 0, 20, "packs");
    const landings = parseInRange(x.landings, 0, 100, "landings");
    if (!packs.ok && !packs.empty) return f.setError("packs", { message: packs.sentence });
    if (!landings.ok && !landings.empty) return f.setError("landings", { message: landings.sentence });
    await logPractice.mutateAsync({
      id: person,
      body: {
        id,
        type_key: x.type_key,
        phase: tank ? x.phase : "empty",
        packs: packs.ok ? Math.round(packs.value) : 0,
        landings: landings.ok ? Math.round(landings.value) : 0,
        nose_in: x.nose_in,
        flown_on: x.flown_on,
        note: x.note,
        pin: x.pin,
      },
    });
    onDone();
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <div className="two" style={{ gap: "0 1rem" }}>
        <SelectField label="Type" {...f.register("type_key")} wrong={f.wrong("type_key")}>
          {d.types.map((t) => (
            <option key={t.type_key} value={t.type_key}>
              {t.type}
            </option>
          ))}
        </SelectField>
        <SelectField label="Flown" {...f.register("phase")} disabled={!tank} wrong={f.wrong("phase")}>
          <option value="empty">empty, by hand</option>
          <option value="loaded">full tank, not spraying, by hand</option>
        </SelectField>
        <NumberField label="Packs" unit="" {...f.register("packs")} wrong={f.wrong("packs")} />
        <NumberField
          label="Take-offs and landings"
          unit=""
          {...f.register("landings")}
          wrong={f.wrong("landings")}
        />
        <DateField label="On" {...f.register("flown_on")} wrong={f.wrong("flown_on")} />
        <CheckField label="Nose-in practised" {...f.register("nose_in")} />
      </div>
      <TextField label="Note" maxLength={500} {...f.register("note")} wrong={f.wrong("note")} />
      <PinPad
        value={v.pin}
        onChange={(pin) => f.setValue("pin", pin)}
        who={me.name}
        statement="I watched this practice and it went as logged."
        wrong={f.wrong("pin")}
      />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Sign and log
      </Button>
    </form>
  );
}

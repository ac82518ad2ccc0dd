import { zodResolver } from "@hookform/resolvers/zod";
import type { z } from "zod";
import { practiceForm } from "./model";
import { useLogPractice } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { DateField } from "../parts/DateField";
import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";
import { serverNow, useZone } from "../parts/time";

type Readiness = Schemas["Readiness"];

/** Puts practice on record: packs, landings, what was flown. */
export function PracticeForm({ person, d, onDone }: { person: string; d: Readiness; onDone: () => void }) {
  const logPractice = useLogPractice();
  const zone = useZone();
  const { person: me } = useSession();
  const [id] = useState(newId);
  const f = useDraftForm<z.input<typeof practiceForm>, z.output<typeof practiceForm>>(
    `practice-${person}`,
    {
      type_key: d.types[0]?.type_key ?? "",
      phase: "empty",
      packs: "1",
      landings: "",
      nose_in: false,
      flown_on: zone.date(new Date(serverNow()).toISOString()),
      note: "",
      pin: "",
    },
    ["pin"],
    zodResolver(practiceForm),
  );
  const v = f.watch();
  const tank = d.types.find((t) => t.type_key === v.type_key)?.tank ?? false;
  const send = f.submit(async (x) => {
    await logPractice.mutateAsync({
      id: person,
      body: {
        id,
        ...x,
        phase: tank ? x.phase : "empty",
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

import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { useInstalled, useTestedTogether } from "./api";
import { components, componentNames as names } from "./firmware";

/** Records what is installed. */
export function Update({
  aircraft,
  f,
  onClose,
}: {
  aircraft: string;
  f: Schemas["AircraftFirmware"];
  onClose: () => void;
}) {
  const keep = useInstalled(aircraft);
  const have = Object.fromEntries(f.installed.map((i) => [i.component, i.version]));
  const form = useDraftForm(`firmware-${aircraft}`, {
    versions: Object.fromEntries(components.map((c) => [c, have[c] ?? ""])),
  });
  const send = form.submit(async (v) => {
    await keep.mutateAsync(v.versions);
    onClose();
  });
  return (
    <Dialog title="Record what is installed" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {form.root && <Problem error={new Error(form.root)} />}
        <p>
          At base, with a network. A change opens the re-checks of the programme as work: link, settings,
          calibration, a short check flight.
        </p>
        {components.map((c) => (
          <TextField
            key={c}
            label={names[c]}
            maxLength={40}
            hint={f.set?.versions[c] ? `Tested together: ${f.set.versions[c]}` : undefined}
            {...form.register(`versions.${c}`)}
          />
        ))}
        <Button type="submit" className="w-100" disabled={keep.isPending}>
          Put on record
        </Button>
      </form>
    </Dialog>
  );
}

/** Puts what is installed here on file as the combination of the type that was tested together. */
export function TestedSet({
  typeKey,
  f,
  onClose,
}: {
  typeKey: string;
  f: Schemas["AircraftFirmware"];
  onClose: () => void;
}) {
  const keep = useTestedTogether(typeKey);
  const form = useDraftForm(`tested-${typeKey}`, { note: "" });
  const send = form.submit(async (v) => {
    await keep.mutateAsync({
      version: (f.set?.version ?? 0) + 1,
      versions: Object.fromEntries(f.installed.map((i) => [i.component, i.version])),
      note: v.note,
    });
    onClose();
  });
  return (
    <Dialog title="These versions were tested together" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {form.root && <Problem error={new Error(form.root)} />}
        <p>
          From now on every aircraft of this type is held against what is installed here:{" "}
          {f.installed.map((i) => `${i.component} ${i.version}`).join(", ")}.
        </p>
        <TextField label="How it was tested" {...form.register("note")} wrong={form.wrong("note")} />
        <Button type="submit" className="w-100" disabled={keep.isPending}>
          Put the combination on file
        </Button>
      </form>
    </Dialog>
  );
}

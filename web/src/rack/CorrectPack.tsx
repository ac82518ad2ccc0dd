import { zodResolver } from "@hookform/resolvers/zod";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { KindFields } from "./KindFields";
import { useCorrectPack } from "./api";
import { correctForm, type CorrectTyped } from "./form";

/** Puts right what is on file of a pack; before and after stand in the records. */
export function CorrectPack({ p, onClose }: { p: Schemas["Pack"]; onClose: () => void }) {
  const correct = useCorrectPack(p.id);
  const f = useDraftForm(
    `pack-${p.id}-${p.version}`,
    {
      label: p.label,
      serial: p.serial,
      chemistry: p.chemistry as CorrectTyped["chemistry"],
      cells: String(p.cells),
      capacity_mah: String(p.capacity_mah),
      cycles: String(p.cycles),
    },
    [],
    zodResolver(correctForm),
  );
  const send = f.submit(async (v) => {
    await correct.mutateAsync({ ...v, version: p.version });
    onClose();
  });
  return (
    <Dialog title={`Correct ${p.label}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p className="soft">What stood here before and what stands here now go on record.</p>
        <TextField label="Label" {...f.register("label")} wrong={f.wrong("label")} />
        <TextField label="Maker's serial number" {...f.register("serial")} wrong={f.wrong("serial")} />
        <KindFields register={(n) => f.register(n)} wrong={(n) => f.wrong(n)} />
        <Button type="submit" className="w-100" disabled={correct.isPending}>
          Save
        </Button>
      </form>
    </Dialog>
  );
}

import { useDisposePack } from "./api";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";

/** The end of a quarantined pack, signed. */
export function DisposePack({ p, onClose }: { p: Schemas["Pack"]; onClose: () => void }) {
  const disposePack = useDisposePack();
  const { person } = useSession();
  const f = useDraftForm(
    `dispose-${p.id}`,
    { method: "", delivered_to: "", discharged: false, note: "", pin: "" },
    ["pin"],
  );
  const send = f.submit(async (v) => {
    try {
      await disposePack.mutateAsync({ id: p.id, body: v });
    } finally {
      f.setValue("pin", "");
    }
    onClose();
  });
  return (
    <Dialog title={`Dispose of ${p.label}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>Outside, away from anything that burns, as the maker and the place that takes it say.</p>
        <TextField label="How it was discharged" {...f.register("method")} wrong={f.wrong("method")} />
        <CheckField
          label="It is discharged, and the terminals are taped"
          {...f.register("discharged")}
          wrong={f.wrong("discharged")}
        />
        <TextField label="Delivered to" {...f.register("delivered_to")} wrong={f.wrong("delivered_to")} />
        <AreaField label="Remarks" {...f.register("note")} wrong={f.wrong("note")} />
        <PinPad
          value={f.watch("pin")}
          onChange={(v) => f.setValue("pin", v)}
          who={person.name}
          statement="I have discharged this pack and delivered it for disposal."
          wrong={f.wrong("pin")}
        />
        <Button type="submit" variant="danger" className="w-100" disabled={f.formState.isSubmitting}>
          Sign and retire it for good
        </Button>
      </form>
    </Dialog>
  );
}

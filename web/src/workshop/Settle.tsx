import { useSettleDefect } from "./api";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";

/** Ends a defect without a work order: somebody with that right looked at it, and signs. */
export function Settle({ d, onClose }: { d: Schemas["Defect"]; onClose: () => void }) {
  const settleDefect = useSettleDefect();
  const { person } = useSession();
  const f = useDraftForm(`settle-${d.id}`, { note: "", pin: "" }, ["pin"]);
  const send = f.submit(async (v) => {
    try {
      await settleDefect.mutateAsync({ id: d.id, body: v });
    } finally {
      f.setValue("pin", "");
    }
    onClose();
  });
  return (
    <Dialog title={`Looked at: ${d.title}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p className="soft">
          For what was put right on the spot, or proved to be nothing. Parts, readings and a second person
          need a work order.
        </p>
        <AreaField label="What was looked at and done" {...f.register("note")} wrong={f.wrong("note")} />
        <PinPad
          value={f.watch("pin")}
          onChange={(v) => f.setValue("pin", v)}
          who={person.name}
          statement="I have looked at this defect; it is put right, and the aircraft is safe to fly."
          wrong={f.wrong("pin")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Sign and end it
        </Button>
      </form>
    </Dialog>
  );
}

import { useLookAtGear } from "./api";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

/** Somebody looks at case, leads and cells of a piece of gear. */
export function LookAtGear({ g, onClose }: { g: Schemas["Gear"]; onClose: () => void }) {
  const lookAtGear = useLookAtGear();
  const f = useDraftForm(`gear-look-${g.id}`, { found: "" });
  const send = f.submit(async (v) => {
    await lookAtGear.mutateAsync({ id: g.id, body: v });
    onClose();
  });
  return (
    <Dialog title={`Look at ${g.name}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>Case, leads, contacts, antenna; swelling of its own battery on every side.</p>
        <TextField
          label="What is wrong"
          placeholder="nothing"
          maxLength={200}
          {...f.register("found")}
          wrong={f.wrong("found")}
          hint="Left empty: looked at, nothing found."
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          {f.watch("found").trim() ? "Put down what was found" : "Looked at: nothing found"}
        </Button>
      </form>
    </Dialog>
  );
}

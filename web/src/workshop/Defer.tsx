import { zodResolver } from "@hookform/resolvers/zod";
import { deferForm } from "./forms";
import { useDefer } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { useSession } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, NumberField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";

export interface DeferProps {
  open: boolean;
  onClose: () => void;
  aircraft: string;
  title: string;
  defect?: string;
  task?: string;
}

/** Puts a defect or a task off by signature, within what the programme allows. */
export function Defer({ open, onClose, aircraft, title, defect, task }: DeferProps) {
  const defer = useDefer();
  const { person } = useSession();
  const [id, setId] = useState(newId);
  const blank = { days: "3", reason: "", pin: "" };
  const f = useDraftForm(
    `defer-${defect ?? aircraft + (task ?? "")}`,
    blank,
    ["pin"],
    zodResolver(deferForm),
  );
  const send = f.submit(async (v) => {
    try {
      await defer.mutateAsync({
        id,
        aircraft_id: aircraft,
        defect_id: defect ?? null,
        task_id: task ?? "",
        ...v,
      });
    } finally {
      f.setValue("pin", "");
    }
    setId(newId());
    f.reset(blank);
    onClose();
  });
  return (
    <Dialog title={`Put off: ${title}`} open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>
          Only where the maintenance programme allows it, once, and no longer than it allows. Its limits on
          use are shown at the gate until the work is done.
        </p>
        <NumberField label="For" unit="days" {...f.register("days")} wrong={f.wrong("days")} />
        <AreaField label="Why it waits" {...f.register("reason")} wrong={f.wrong("reason")} />
        <PinPad
          value={f.watch("pin")}
          onChange={(v) => f.setValue("pin", v)}
          who={person.name}
          statement="I put this off within the limits of the programme; the aircraft is safe to fly with it."
          wrong={f.wrong("pin")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Sign and put it off
        </Button>
      </form>
    </Dialog>
  );
}

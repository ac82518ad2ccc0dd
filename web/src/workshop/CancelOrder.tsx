import { useCancelWorkOrder } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

type Order = Schemas["WorkOrder"];

/** Calls a work order off, with the reason. */
export function Cancel({ o }: { o: Order }) {
  const cancelWorkOrder = useCancelWorkOrder();
  const [open, setOpen] = useState(false);
  const f = useDraftForm(`cancel-${o.id}`, { reason: "" });
  const send = f.submit(async (v) => {
    await cancelWorkOrder.mutateAsync({ id: o.id, body: v });
    setOpen(false);
  });
  return (
    <>
      <Button variant="outline-danger" className="d-print-none" onClick={() => setOpen(true)}>
        Cancel it
      </Button>
      <Dialog title={`Cancel: ${o.title}`} open={open} onClose={() => setOpen(false)}>
        <form onSubmit={send} noValidate>
          {f.root && <Problem error={new Error(f.root)} />}
          <AreaField
            label="Why it was opened by mistake"
            {...f.register("reason")}
            wrong={f.wrong("reason")}
          />
          <Button type="submit" variant="danger" className="w-100">
            Cancel the work order
          </Button>
        </form>
      </Dialog>
    </>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { Button } from "react-bootstrap";
import { z } from "zod";
import type { Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useWithdraw } from "./api";

const form = z.object({ why: z.string().trim().min(3, "Say why, like: read at another pack.").max(500) });

/** Takes a reading out of all that is judged; it stays to be read. */
export function Withdraw(of: { pack: string; reading: Schemas["PackReading"]; onClose: () => void }) {
  const z = useZone();
  const withdraw = useWithdraw(of.pack);
  const f = useDraftForm(`withdraw-${of.reading.id}`, { why: "" }, [], zodResolver(form));
  const send = f.submit(async ({ why }) => {
    await withdraw.mutateAsync({ reading: of.reading.id, why });
    of.onClose();
  });
  return (
    <Dialog title="Withdraw a reading" open onClose={of.onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>
          The reading of {z.both(of.reading.at)} by {of.reading.by} counts for nothing then. It stays here,
          with your name and the reason.
        </p>
        <TextField label="Why" {...f.register("why")} wrong={f.wrong("why")} />
        <Button type="submit" className="w-100" disabled={withdraw.isPending}>
          Withdraw it
        </Button>
      </form>
    </Dialog>
  );
}

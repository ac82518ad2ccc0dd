import { signOut } from "./api";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { keys } from "../api/keys";
import { usePresses } from "../outbox/hooks";
import { waitWords } from "../outbox/model";
import { Dialog } from "../parts/Dialog";
import { Problem } from "../parts/states";
import { useSession } from "../parts/session";

/** Ends the session on this device; what still waits to be sent is said first. */
export function SignOut() {
  const qc = useQueryClient();
  const { person } = useSession();
  const waits = usePresses().filter((p) => p.person === person.id).length;
  const [open, setOpen] = useState(false);
  const out = useMutation({
    mutationFn: signOut,
    onSuccess: () => {
      qc.setQueryData(keys.session, null);
      qc.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" }); // the next person sees nothing of this one
    },
    onError: () => setOpen(true),
  });
  return (
    <>
      <Button variant="outline-primary" size="sm" onClick={() => (waits > 0 ? setOpen(true) : out.mutate())}>
        Sign out
      </Button>
      <Dialog title="Sign out" open={open} onClose={() => setOpen(false)}>
        {out.error && <Problem error={out.error} />}
        {waits > 0 && (
          <p>
            {waitWords(waits)}. It is kept on this device and sent when you sign in here again; until then
            nobody else knows of it.
          </p>
        )}
        <Button className="w-100" onClick={() => out.mutate()}>
          Sign out
        </Button>
      </Dialog>
    </>
  );
}

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { wrote, type Table } from "./touched";

/** A write to the server, with the tables it touches: all that shows something of them looks again. */
export function useWrite<V, A>(send: (v: V) => Promise<A>, ...tables: Table[]) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: send,
    // The press is answered when the server has answered; what looks again comes in behind it.
    onSuccess: () => void wrote(qc, ...tables),
  });
}

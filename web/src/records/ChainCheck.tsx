import { useState } from "react";
import { Button } from "react-bootstrap";
import { TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useHead, useVerify } from "./api";

/** Checks the chain, against a head that somebody kept, and says where it ends now. */
export function ChainCheck() {
  const z = useZone();
  const head = useHead();
  const verify = useVerify();
  const [known, setKnown] = useState("");
  return (
    <Sheet title="Does everything hold?">
      <p className="soft">
        Each record carries the hash of its content and of what is before it, and after each record the state
        of everything it changed is sealed. Whoever could rewrite it all could not rewrite a head that is kept
        elsewhere: write it down, or have it sent out (Set-up).
      </p>
      {head.data && (
        <p>
          The newest head: <strong className="fig">{head.data.place}</strong> {head.data.words}
          {head.data.trouble && (
            <span className="d-block">
              <VerdictMark verdict="watch" /> It could not be sent out: {head.data.trouble}
            </span>
          )}
          {head.data.sent_at && !head.data.trouble && (
            <span className="soft"> Last sent out {z.both(head.data.sent_at)}.</span>
          )}
        </p>
      )}
      <form
        className="d-print-none"
        onSubmit={(e) => {
          e.preventDefault();
          verify.mutate(known);
        }}
      >
        <TextField
          label="A head you kept, if you have one"
          hint="The number and its eight words, as on a printed page."
          value={known}
          onChange={(e) => setKnown(e.target.value)}
        />
        <Button type="submit" disabled={verify.isPending}>
          {verify.isPending ? "Checking…" : "Check everything"}
        </Button>
      </form>
      {verify.isError && <Problem error={verify.error} />}
      {verify.data && (
        <div className={`judged mt-3 ${verify.data.ok ? "clear" : "stop"}`} role="status">
          <VerdictMark verdict={verify.data.ok ? "clear" : "stop"} /> {verify.data.sentence}
        </div>
      )}
    </Sheet>
  );
}

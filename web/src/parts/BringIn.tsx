import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type ReactNode } from "react";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { type Table, wrote } from "../api/touched";
import { sending } from "../api/upload";
import { Dialog } from "./Dialog";
import { ImportLook } from "./ImportLook";
import { ImportResult } from "./ImportResult";
import { Busy, Problem } from "./states";

export interface BringInProps {
  /** The words on the button. */
  label: string;
  /** The name of the file field, and what a report counts, like "flights". */
  field: string;
  what?: string;
  /** Endings, as a file field takes them. */
  accept: string;
  /** The largest file, in MB; more is refused before it is sent. */
  mostMB?: number;
  /** Shows what becomes of the file in a dialog of this title, where there is no room beside the button. */
  dialog?: string;
  /** Says what would become of the file; then it is taken only after a second press. */
  look?: BringInProps["take"];
  /** A kind of what is brought in, in words. */
  called?: (kind: string) => string;
  /** The tables that are written, so that what shows them looks again. */
  writes: Table[];
  /** Sends the file through the given fetch; the answer is a report of its lines or a sentence. */
  take: (file: File, fetch: Fetch) => Promise<Schemas["ImportReport"] | string>;
}

/** What a request with a file as its body needs besides its path. */
/** How a file is sent, with how much of it is on its way. */
export type Fetch = ReturnType<typeof sending>;

export const asText = {
  bodySerializer: (b: unknown) => b as string,
  headers: { "content-type": "text/csv" },
};

/** A button that takes a file, and what becomes of it: how much is sent, what was taken, what was refused. */
export function BringIn({
  label,
  field,
  what = "lines",
  accept,
  mostMB,
  dialog,
  look,
  called = (k) => k,
  take,
  writes,
}: BringInProps) {
  const qc = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const [sent, setSent] = useState<number>();
  const [answer, setAnswer] = useState<Schemas["ImportReport"] | string>();
  const [looked, setLooked] = useState<{ file: File; report: Schemas["ImportReport"] }>();
  const [error, setError] = useState<unknown>();
  const clear = () => {
    setLooked(undefined);
    setAnswer(undefined);
    setError(undefined);
    setSent(undefined);
  };
  const run = async (f: File, sure = false) => {
    clear();
    setFile(f);
    try {
      if (mostMB && f.size > mostMB << 20)
        throw new Error(`${f.name} is larger than ${mostMB} MB. Nothing was saved.`);
      const said = await (look && !sure ? look : take)(f, sending(setSent));
      if (look && !sure && typeof said === "object") setLooked({ file: f, report: said });
      else {
        setAnswer(said);
        await wrote(qc, ...writes);
      }
    } catch (e) {
      setError(e);
    }
    setFile(undefined);
  };
  const state: ReactNode = (file || looked || answer !== undefined || error !== undefined) && (
    <div className="mt-2">
      {file &&
        (sent !== undefined && sent < 1 ? (
          <Busy what={`Sending ${file.name}, ${(file.size / 1048576).toFixed(1)} MB`} share={sent} />
        ) : (
          <Busy what={`Reading ${file.name} …`} />
        ))}
      {error !== undefined && <Problem error={error} paths />}
      {typeof answer === "string" && (
        <p role="status" className="mt-2 mb-0">
          {answer}
        </p>
      )}
      {looked && (
        <ImportLook
          report={looked.report}
          what={what}
          called={called}
          onTake={() => void run(looked.file, true)}
          onLeave={clear}
        />
      )}
      {typeof answer === "object" && <ImportResult report={answer} what={what} />}
    </div>
  );
  return (
    <div>
      <Button variant="outline-primary" disabled={file !== undefined} onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        aria-label={field}
        onChange={(e) => {
          const f = e.target.files?.[0];
          e.target.value = "";
          if (f) void run(f);
        }}
      />
      {dialog ? (
        <Dialog
          title={dialog}
          open={file !== undefined || looked !== undefined || answer !== undefined || error !== undefined}
          onClose={clear}
        >
          {state}
        </Dialog>
      ) : (
        state
      )}
    </div>
  );
}

import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { ImportResult } from "../parts/ImportResult";
import { Problem } from "../parts/states";

/** Brings in the file of a charger; every line is accounted for. */
export function ImportReadings() {
  const qc = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [report, setReport] = useState<Schemas["ImportReport"]>();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>();
  const take = async (file: File | undefined) => {
    if (!file) return;
    setError(undefined);
    setReport(undefined);
    setBusy(true);
    try {
      const body = await file.text();
      setReport(
        await ask(
          api.POST("/packs/import", {
            body,
            bodySerializer: (b) => b,
            headers: { "content-type": "text/csv" },
          }),
        ),
      );
      await qc.invalidateQueries();
    } catch (e) {
      setError(e);
    }
    setBusy(false);
  };
  return (
    <div>
      <Button variant="outline-primary" disabled={busy} onClick={() => input.current?.click()}>
        {busy ? "Reading …" : "Bring in the file of a charger"}
      </Button>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        hidden
        aria-label="File of a charger"
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = "";
        }}
      />
      {error !== undefined && <Problem error={error} />}
      {report && <ImportResult report={report} what="readings" />}
    </div>
  );
}

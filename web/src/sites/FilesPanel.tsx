import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { ImportResult } from "../parts/ImportResult";
import { Sheet } from "../parts/Sheet";
import { Busy, Problem } from "../parts/states";
import { useZone } from "../parts/time";

type Format = "geojson" | "kml" | "gpx" | "csv";
const formats: Format[] = ["geojson", "kml", "gpx", "csv"];
const endings: Record<string, Format> = {
  geojson: "geojson",
  json: "geojson",
  kml: "kml",
  gpx: "gpx",
  csv: "csv",
};

/** Files in and out, and the terrain. */
export function FilesPanel({ s, may }: { s: Schemas["Site"]; may: boolean }) {
  const qc = useQueryClient();
  const z = useZone();
  const map = useRef<HTMLInputElement>(null);
  const grid = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState("");
  const [report, setReport] = useState<Schemas["ImportReport"]>();
  const [done, setDone] = useState("");
  const [error, setError] = useState<unknown>();
  const run = async (what: string, fn: () => Promise<void>) => {
    setBusy(what);
    setError(undefined);
    setReport(undefined);
    setDone("");
    try {
      await fn();
      await qc.invalidateQueries({ queryKey: ["site"] });
    } catch (e) {
      setError(e);
    }
    setBusy("");
  };
  const plain = { bodySerializer: (b: unknown) => b as string, headers: { "content-type": "text/csv" } };
  const takeMap = (file: File) =>
    run(`Reading ${file.name}, ${(file.size / 1048576).toFixed(1)} MB …`, async () => {
      const format = endings[file.name.split(".").pop()?.toLowerCase() ?? ""];
      if (!format) throw new Error(`${file.name} is none of GeoJSON, KML, GPX and CSV. Nothing was saved.`);
      if (file.size > 10 << 20) throw new Error(`${file.name} is larger than 10 MB. Nothing was saved.`);
      setReport(
        await ask(
          api.POST("/sites/{id}/import", {
            params: { path: { id: s.head.id }, query: { format } },
            body: await file.text(),
            ...plain,
          }),
        ),
      );
    });
  const takeGrid = (file: File) =>
    run(`Reading ${file.name}, ${(file.size / 1048576).toFixed(1)} MB …`, async () => {
      await ask(
        api.PUT("/sites/{id}/terrain", {
          params: { path: { id: s.head.id }, query: { name: file.name.slice(0, 120), sigma_m: 1 } },
          body: await file.text(),
          ...plain,
        }),
      );
      setDone(`The terrain is ${file.name} from now on.`);
    });
  return (
    <Sheet title="Files and terrain">
      <p className="mb-2">
        Out:{" "}
        {formats.map((f) => (
          <a
            key={f}
            className="btn btn-outline-primary btn-sm me-1"
            href={`/api/v1/sites/${s.head.id}/export?format=${f}`}
            download={`${s.head.name}.${f}`}
          >
            {f}
          </a>
        ))}
      </p>
      <p className="mb-2">
        Terrain:{" "}
        {s.terrain
          ? `${s.terrain.source}, ${s.terrain.columns} × ${s.terrain.rows} cells${s.terrain.gaps ? `, ${s.terrain.gaps} gaps` : ""}, ± ${s.terrain.sigma_m} m (${s.terrain.by}, ${z.date(s.terrain.at)})`
          : "none; the ground is taken as level."}
      </p>
      {may && (
        <div className="d-flex gap-2 flex-wrap">
          <Button variant="outline-primary" disabled={busy !== ""} onClick={() => map.current?.click()}>
            Bring in a map file
          </Button>
          <Button variant="outline-primary" disabled={busy !== ""} onClick={() => grid.current?.click()}>
            Bring in terrain (.asc)
          </Button>
        </div>
      )}
      <input
        ref={map}
        type="file"
        hidden
        accept=".geojson,.json,.kml,.gpx,.csv"
        aria-label="Map file"
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) void takeMap(f);
          e.target.value = "";
        }}
      />
      <input
        ref={grid}
        type="file"
        hidden
        accept=".asc,.txt"
        aria-label="Terrain file"
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) void takeGrid(f);
          e.target.value = "";
        }}
      />
      {busy && <Busy what={busy} />}
      {done && (
        <p role="status" className="mt-2 mb-0">
          {done}
        </p>
      )}
      {error !== undefined && <Problem error={error} />}
      {report && <ImportResult report={report} what="features" />}
    </Sheet>
  );
}

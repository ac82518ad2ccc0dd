import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { VerdictMark } from "../parts/Flag";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { useFirmware } from "./api";
import { componentNames, firmwareRows } from "./firmware";
import { TestedSet, Update } from "./FirmwareForms";

/** What is installed, against the combination that was tested together. */
export function FirmwarePanel({ aircraft, typeKey }: { aircraft: string; typeKey: string }) {
  const q = useFirmware(aircraft);
  const may = useMay();
  const [form, setForm] = useState<"update" | "tested">();
  const close = () => setForm(undefined);
  return (
    <div className="mt-3">
      <Sheet
        title="Firmware"
        aside={
          may("technician") && (
            <span className="d-flex gap-2 flex-wrap">
              <Button variant="outline-primary" size="sm" onClick={() => setForm("update")}>
                Record an update
              </Button>
              {q.data && q.data.installed.length > 0 && (!q.data.set || q.data.findings.length > 0) && (
                <Button variant="outline-primary" size="sm" onClick={() => setForm("tested")}>
                  Tested together
                </Button>
              )}
            </span>
          )
        }
      >
        <QueryView query={q} what="the firmware">
          {(f) => (
            <>
              {!f.set && (
                <p>
                  No combination is on file as tested together for this type; what is installed is held
                  against nothing. Record what is installed, fly it together, then put the combination on
                  file.
                </p>
              )}
              <Rows f={f} />
              {form === "tested" && <TestedSet typeKey={typeKey} f={f} onClose={close} />}
              {form === "update" && <Update aircraft={aircraft} f={f} onClose={close} />}
            </>
          )}
        </QueryView>
      </Sheet>
    </div>
  );
}

function Rows({ f }: { f: Schemas["AircraftFirmware"] }) {
  const z = useZone();
  const rows = firmwareRows(f);
  if (rows.length === 0) return null;
  return (
    <ScrollX label="Firmware">
      <Table>
        <thead>
          <tr>
            <th>Component</th>
            <th>Tested together</th>
            <th>Installed</th>
            <th>Judged</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.component}>
              <td>{componentNames[r.component]}</td>
              <td className="fig">{r.tested ?? "nothing"}</td>
              <td>
                <span className="fig">{r.installed?.version ?? "not known"}</span>
                {r.installed && (
                  <span className="soft">
                    {" "}
                    {z.date(r.installed.at)}, {r.installed.by}
                  </span>
                )}
              </td>
              <td>{r.verdict ? <VerdictMark verdict={r.verdict} /> : "against nothing"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </ScrollX>
  );
}

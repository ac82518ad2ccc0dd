import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { Dialog } from "../parts/Dialog";
import { TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";

const components = ["aircraft", "controller", "pack", "payload", "app"] as const;
const names: Record<(typeof components)[number], string> = {
  aircraft: "Aircraft",
  controller: "Controller",
  pack: "Packs",
  payload: "Payload",
  app: "App on the tablet",
};

/** What is installed, against the combination that was tested together. */
export function FirmwarePanel({ aircraft, typeKey }: { aircraft: string; typeKey: string }) {
  const q = useQuery({
    queryKey: keys.firmware(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}/firmware", { params: { path: { id: aircraft } } })),
  });
  const may = useMay();
  const z = useZone();
  const [edit, setEdit] = useState(false);
  const [tested, setTested] = useState(false);
  return (
    <div className="mt-3">
      <Sheet
        title="Firmware"
        aside={
          may("technician") && (
            <span className="d-flex gap-2 flex-wrap">
              <Button variant="outline-primary" size="sm" onClick={() => setEdit(true)}>
                Record an update
              </Button>
              {q.data && q.data.installed.length > 0 && (!q.data.set || q.data.findings.length > 0) && (
                <Button variant="outline-primary" size="sm" onClick={() => setTested(true)}>
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
                <p className="m-0">
                  No combination is on file as tested together for this type; what is installed is held
                  against nothing. Record what is installed, fly it together, then put the combination on
                  file.
                </p>
              )}
              {f.set && (
                <ScrollX label="Firmware">
                  <table className="ledger">
                    <thead>
                      <tr>
                        <th>Component</th>
                        <th>Tested together</th>
                        <th>Installed</th>
                        <th>Judged</th>
                      </tr>
                    </thead>
                    <tbody>
                      {components
                        .filter((c) => f.set?.versions[c])
                        .map((c) => {
                          const have = f.installed.find((i) => i.component === c);
                          const odd = f.findings.find((x) => x.component === c);
                          return (
                            <tr key={c}>
                              <td>{names[c]}</td>
                              <td className="fig">{f.set?.versions[c]}</td>
                              <td>
                                <span className="fig">{have?.version ?? "not known"}</span>
                                {have && (
                                  <span className="soft">
                                    {" "}
                                    {z.date(have.at)}, {have.by}
                                  </span>
                                )}
                              </td>
                              <td>
                                <VerdictMark verdict={odd?.verdict ?? "clear"} />
                              </td>
                            </tr>
                          );
                        })}
                    </tbody>
                  </table>
                </ScrollX>
              )}
              {tested && <TestedSet typeKey={typeKey} f={f} onClose={() => setTested(false)} />}
              {edit && <Update aircraft={aircraft} f={f} onClose={() => setEdit(false)} />}
            </>
          )}
        </QueryView>
      </Sheet>
    </div>
  );
}

function Update({
  aircraft,
  f,
  onClose,
}: {
  aircraft: string;
  f: Schemas["AircraftFirmware"];
  onClose: () => void;
}) {
  const qc = useQueryClient();
  const have = Object.fromEntries(f.installed.map((i) => [i.component, i.version]));
  const form = useDraftForm(`firmware-${aircraft}`, {
    versions: Object.fromEntries(components.map((c) => [c, have[c] ?? ""])),
  });
  const send = form.submit(async (v) => {
    await ask(
      api.PUT("/aircraft/{id}/firmware", {
        params: { path: { id: aircraft } },
        body: { versions: v.versions },
      }),
    );
    onClose();
    await qc.invalidateQueries();
  });
  return (
    <Dialog title="Record what is installed" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {form.root && <Problem error={new Error(form.root)} />}
        <p>
          At base, with a network. A change opens the re-checks of the programme as work: link, settings,
          calibration, a short check flight.
        </p>
        {components.map((c) => (
          <TextField
            key={c}
            label={names[c]}
            maxLength={40}
            hint={f.set?.versions[c] ? `Tested together: ${f.set.versions[c]}` : undefined}
            {...form.register(`versions.${c}`)}
          />
        ))}
        <Button type="submit" className="w-100" disabled={form.formState.isSubmitting}>
          Put on record
        </Button>
      </form>
    </Dialog>
  );
}

/** Puts what is installed here on file as the combination of the type that was tested together. */
function TestedSet({
  typeKey,
  f,
  onClose,
}: {
  typeKey: string;
  f: Schemas["AircraftFirmware"];
  onClose: () => void;
}) {
  const qc = useQueryClient();
  const form = useDraftForm(`tested-${typeKey}`, { note: "" });
  const send = form.submit(async (v) => {
    await ask(
      api.POST("/types/{key}/firmware", {
        params: { path: { key: typeKey } },
        body: {
          type_key: typeKey,
          version: (f.set?.version ?? 0) + 1,
          versions: Object.fromEntries(f.installed.map((i) => [i.component, i.version])),
          note: v.note,
        },
      }),
    );
    onClose();
    await qc.invalidateQueries();
  });
  return (
    <Dialog title="These versions were tested together" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {form.root && <Problem error={new Error(form.root)} />}
        <p>
          From now on every aircraft of this type is held against what is installed here:{" "}
          {f.installed.map((i) => `${i.component} ${i.version}`).join(", ")}.
        </p>
        <TextField label="How it was tested" {...form.register("note")} wrong={form.wrong("note")} />
        <Button type="submit" className="w-100" disabled={form.formState.isSubmitting}>
          Put the combination on file
        </Button>
      </form>
    </Dialog>
  );
}

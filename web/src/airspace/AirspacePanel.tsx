import { Explained } from "../parts/Explained";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { asText, BringIn } from "../parts/BringIn";
import { Sheet } from "../parts/Sheet";
import { Busy, Loading, Problem } from "../parts/states";
import { useAge, useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { Calls, Wanted } from "./Wanted";

type Airspace = Schemas["Airspace"];

type Zone = Schemas["ZoneSeen"];

export interface AirspacePanelProps {
  site: string;
  a?: Airspace;
  error: unknown;
  may: boolean;
}

/** Which zones a flight here meets, what was granted, and the calls that are due. */
export function AirspacePanel({ site, a, error, may }: AirspacePanelProps) {
  const qc = useQueryClient();
  const u = useUnits();
  const z = useZone();
  const age = useAge();
  const pilot = useMay()("pilot");
  const [busy, setBusy] = useState("");
  const [failed, setFailed] = useState<unknown>();
  const [wanted, setWanted] = useState<Zone>();
  const run = async (what: string, fn: () => Promise<unknown>) => {
    setBusy(what);
    setFailed(undefined);
    try {
      await fn();
    } catch (e) {
      setFailed(e);
    }
    await qc.invalidateQueries({ queryKey: ["airspace"] });
    setBusy("");
  };
  const call = (id: string, kind: "start" | "end", how: "desk" | "spoken") =>
    run("", () =>
      ask(
        api.POST("/authorisations/{id}/calls", {
          params: { path: { id } },
          body: { id: newId(), kind, how },
        }),
      ),
    );
  if (!a) return error !== null ? <Problem error={error} /> : <Loading what="the airspace" />;
  return (
    <>
      <Sheet
        title="Airspace"
        aside={
          <span className="d-flex gap-3 align-items-center flex-wrap">
            <span className="soft">up to {u.show("length", a.height_m)}, next two hours</span>
            <VerdictMark verdict={a.verdict} />
          </span>
        }
      >
        <p className="mb-2">
          {a.looked_at
            ? `Looked up ${age(a.looked_at)} by ${a.looked_by}, ${a.source === "desk" ? "at the airspace desk" : "from a file"}.`
            : "Nobody has looked up the airspace here yet."}
        </p>
        {may && (
          <div className="no-print d-flex gap-2 flex-wrap mb-3">
            {a.desk && (
              <Button
                disabled={busy !== ""}
                onClick={() =>
                  void run("Asking the desk …", () =>
                    ask(api.POST("/sites/{id}/airspace/look", { params: { path: { id: site } } })),
                  )
                }
              >
                Ask the airspace desk
              </Button>
            )}
            <BringIn
              label="Zones from GeoJSON"
              writes={["zones", "site_airspace"]}
              field="File with zones"
              what="zones"
              accept=".geojson,.json"
              take={async (f, fetch) =>
                ask(
                  api.POST("/sites/{id}/airspace/import", {
                    params: { path: { id: site } },
                    body: await f.text(),
                    ...asText,
                    fetch,
                  }),
                )
              }
            />
          </div>
        )}
        {busy && <Busy what={busy} />}
        {failed !== undefined && <Problem error={failed} />}
        {a.findings
          .filter((f) => !a.zones.some((x) => x.sentence === f.sentence))
          .map((f, i) => (
            <p key={i} className="mb-1">
              <VerdictMark verdict={f.verdict} /> <Explained text={f.sentence} />
            </p>
          ))}
        <ul className="plain">
          {a.zones.map((x) => (
            <li key={x.id}>
              <VerdictMark verdict={x.verdict} /> <Explained text={x.sentence} />
              <div className="soft">
                {levels(x, u.show)}
                {!x.inside && `, border ${u.show("length", Math.round(x.border_m))} away`}
                {(x.from || x.to) && `, ${x.from ? z.both(x.from) : "…"} to ${x.to ? z.both(x.to) : "…"}`}
                {x.calls && ", wants calls at start and end"}
              </div>
              {may && x.source === "file" && (
                <Button
                  size="sm"
                  variant="outline-primary"
                  className="no-print mt-1 me-2"
                  onClick={() =>
                    void run("", () => ask(api.DELETE("/zones/{id}", { params: { path: { id: x.id } } })))
                  }
                >
                  Take {x.name} off again
                </Button>
              )}
              {pilot && x.may_ask && x.inside && (
                <Button
                  size="sm"
                  variant="outline-primary"
                  className="no-print mt-1"
                  onClick={() => setWanted(x)}
                >
                  Authorisation for {x.name}
                </Button>
              )}
            </li>
          ))}
        </ul>
        {a.looked_at && a.zones.length === 0 && <p className="mb-0">No zone within 5 km.</p>}
      </Sheet>
      {a.authorisations.length > 0 && (
        <Sheet title="Authorisations">
          <ul className="plain">
            {a.authorisations.map((x) => (
              <li key={x.id}>
                <VerdictMark verdict={x.verdict} />{" "}
                <strong className="fig">{x.number || "no number yet"}</strong> {x.zone}: {x.sentence}
                <div className="soft">
                  {u.show("length", x.ceiling_m)}, {z.both(x.from)} to {z.time(x.to)}, asked by {x.asked_by}
                  {x.calls.map((c, i) => (
                    <span key={i}>
                      {" "}
                      · {c.kind} called {z.time(c.at)} by {c.by}
                      {c.how === "spoken" && " (spoken)"}
                    </span>
                  ))}
                </div>
                {may && (
                  <span className="d-flex gap-2 flex-wrap no-print mt-1">
                    {x.state === "granted" && (
                      <Calls x={x} desk={a.desk} onCall={(kind, how) => void call(x.id, kind, how)} />
                    )}
                    {pilot && x.state !== "withdrawn" && x.state !== "refused" && (
                      <Button
                        size="sm"
                        variant="outline-primary"
                        onClick={() =>
                          void run("", () =>
                            ask(api.DELETE("/authorisations/{id}", { params: { path: { id: x.id } } })),
                          )
                        }
                      >
                        Withdraw
                      </Button>
                    )}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </Sheet>
      )}
      <Dialog
        title={`Authorisation for ${wanted?.name ?? ""}`}
        open={wanted !== undefined}
        onClose={() => setWanted(undefined)}
      >
        {wanted && (
          <Wanted key={wanted.id} site={site} a={a} zone={wanted} onDone={() => setWanted(undefined)} />
        )}
      </Dialog>
    </>
  );
}

const datumWords: Record<Zone["floor_datum"], string> = {
  ground: "",
  sea: "above the sea",
  "flight-level": "in the standard atmosphere",
};

function levels(x: Zone, show: (q: "length", v: number) => string): string {
  const level = (m: number, datum: Zone["floor_datum"]) => `${show("length", m)} ${datumWords[datum]}`.trim();
  const floor = !x.floor_m ? "ground" : level(x.floor_m, x.floor_datum);
  return `${floor} to ${x.ceiling_m == null ? "no ceiling given" : level(x.ceiling_m, x.ceiling_datum)}`;
}

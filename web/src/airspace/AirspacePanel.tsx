import { useState } from "react";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { BringIn } from "../parts/BringIn";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Busy, Loading, Problem } from "../parts/states";
import { useAge } from "../parts/time";
import { useUnits } from "../parts/units";
import { useLookUp, bringZones } from "./api";
import { Authorisations } from "./Authorisations";
import type { Zone } from "./model";
import { Wanted } from "./Wanted";
import { Zones } from "./Zones";

export interface AirspacePanelProps {
  site: string;
  a?: Schemas["Airspace"];
  error: unknown;
  may: boolean;
}

/** Which zones a flight here meets, what was granted, and the calls that are due. */
export function AirspacePanel({ site, a, error, may }: AirspacePanelProps) {
  const u = useUnits();
  const age = useAge();
  const [wanted, setWanted] = useState<Zone>();
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
        {may && <LookUp site={site} desk={a.desk} />}
        <Zones a={a} may={may} onAsk={setWanted} />
      </Sheet>
      <Authorisations a={a} may={may} />
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

/** Where zones come from: the desk, or a file. */
function LookUp({ site, desk }: { site: string; desk: boolean }) {
  const look = useLookUp(site);
  return (
    <>
      <div className="d-print-none d-flex gap-2 flex-wrap mb-3">
        {desk && (
          <Button disabled={look.isPending} onClick={() => look.mutate()}>
            Ask the airspace desk
          </Button>
        )}
        <BringIn
          label="Zones from GeoJSON"
          writes={["zones", "site_airspace"]}
          field="File with zones"
          what="zones"
          accept=".geojson,.json"
          take={(f, fetch) => bringZones(site, f, fetch)}
        />
      </div>
      {look.isPending && <Busy what="Asking the desk …" />}
      {look.error && <Problem error={look.error} />}
    </>
  );
}

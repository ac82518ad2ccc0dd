import { Button, ListGroup } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { Explained } from "../parts/Explained";
import { VerdictMark } from "../parts/Flag";
import { useMay } from "../parts/session";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import { useTakeOff } from "./api";
import { besides, levels, type Zone } from "./model";

export interface ZonesProps {
  a: Schemas["Airspace"];
  may: boolean;
  onAsk: (z: Zone) => void;
}

/** The zones round a site, each with what it means for a flight here. */
export function Zones({ a, may, onAsk }: ZonesProps) {
  const u = useUnits();
  const z = useZone();
  const pilot = useMay()("pilot");
  const off = useTakeOff();
  return (
    <>
      {off.error && <Problem error={off.error} />}
      {besides(a).map((f, i) => (
        <p key={i} className="mb-1">
          <VerdictMark verdict={f.verdict} /> <Explained text={f.sentence} />
        </p>
      ))}
      <ListGroup as="ul" variant="flush">
        {a.zones.map((x) => (
          <ListGroup.Item as="li" key={x.id}>
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
                className="d-print-none mt-1 me-2"
                disabled={off.isPending}
                onClick={() => off.mutate(x.id)}
              >
                Take {x.name} off again
              </Button>
            )}
            {pilot && x.may_ask && x.inside && (
              <Button
                size="sm"
                variant="outline-primary"
                className="d-print-none mt-1"
                onClick={() => onAsk(x)}
              >
                Authorisation for {x.name}
              </Button>
            )}
          </ListGroup.Item>
        ))}
      </ListGroup>
      {a.looked_at && a.zones.length === 0 && <p className="mb-0">No zone within 5 km.</p>}
    </>
  );
}

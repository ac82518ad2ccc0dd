import { columns } from "../parts/columns";
import { Button, ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { marksOf } from "../drawings/marks";
import { Airframe } from "../drawings/Airframe";
import { useAddress } from "../parts/address";
import { VerdictMark } from "../parts/Flag";
import { Hoist } from "../parts/Hoist";
import { counted } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { OpenDefects } from "./OpenDefects";
import { StationStory } from "./StationStory";

type Detail = Schemas["AircraftDetail"];
type Set = (to: Record<string, string>) => void;

/** The plan of an aircraft, what is against it, and the story of the chosen station. */
export function AircraftNow({ d, set }: { d: Detail; set: Set }) {
  const [params] = useAddress();
  const may = useMay();
  const position = d.type.positions.find((p) => p.id === params.get("part"));
  const station = params.get("station") ?? position?.station ?? "";
  const defect = d.defects.find((x) => x.id === params.get("defect"));
  const a = d.aircraft;
  return (
    <div className="two" style={columns("minmax(0, 3fr) minmax(0, 2fr)")}>
      <div className="sheet">
        <div className="d-flex justify-content-between flex-wrap gap-2">
          <VerdictMark verdict={d.verdict} big />
          <span className="soft">
            {d.type.profile.name} · {a.serial} · {a.registration || "not registered"}
            {a.registration_expires && `, valid through ${a.registration_expires}`}
            {!a.active && " · out of service"}
          </span>
        </div>
        <Airframe
          type={d.type}
          marks={marksOf(d.stations)}
          selected={station}
          onSelect={(s) => set({ station: s === station ? "" : s, part: "" })}
          height="min(56vh, 470px)"
          label={`Plan of ${a.name}; choose a station for its story`}
        />
        <StationsToSee d={d} onSelect={(s) => set({ station: s, part: "" })} />
        <div className="soft fig">
          {a.hours.toFixed(1)} h · {counted(a.flights, "flight")} · {counted(a.landings, "landing")}
        </div>
      </div>
      <div className="vstack gap-3">
        {station ? (
          <StationStory
            d={d}
            station={station}
            onFit={(p) => set({ act: "fit", fitting: p })}
            mayFit={may("technician")}
          />
        ) : (
          <Against d={d} set={set} />
        )}
        <OpenDefects d={d} chosen={defect?.id} />
        <OpenWork orders={d.orders} />
      </div>
    </div>
  );
}

/** The condition of each place that is not clear, said without a press. */
function StationsToSee({ d, onSelect }: { d: Detail; onSelect: (station: string) => void }) {
  const see = d.stations.filter((s) => s.verdict !== "clear");
  if (see.length === 0) return <p className="mb-2">Nothing is noted at any place.</p>;
  return (
    <ListGroup variant="flush" className="mb-2">
      {see.map((s) => (
        <ListGroup.Item
          key={s.station}
          action
          type="button"
          onClick={() => onSelect(s.station)}
          className="d-flex flex-wrap justify-content-between align-items-baseline gap-3"
        >
          <span>
            <strong>{d.type.stations.find((x) => x.id === s.station)?.label ?? s.station}</strong>{" "}
            {s.sentence}
          </span>
          <VerdictMark verdict={s.verdict} />
        </ListGroup.Item>
      ))}
    </ListGroup>
  );
}

function Against({ d, set }: { d: Detail; set: Set }) {
  const may = useMay();
  const a = d.aircraft;
  return (
    <Sheet title="What is against it">
      {d.findings.length === 0 ? (
        <p className="m-0">Nothing against the aircraft itself. The gate asks for packs, pilot and wind.</p>
      ) : (
        <Hoist
          findings={d.findings}
          aircraft={a.id}
          back={{ to: `/fleet/${a.id}`, name: a.name }}
          here={{
            propellers: may("technician")
              ? () => set({ act: "fit", station: "", part: "", fitting: "" })
              : undefined,
            return: may("technician") ? () => set({ act: "return" }) : undefined,
          }}
        />
      )}
      {d.groundings.length > 0 && may("technician") && (
        <Button className="mt-2" onClick={() => set({ act: "return" })}>
          Return to service
        </Button>
      )}
    </Sheet>
  );
}

function OpenWork({ orders }: { orders: Detail["orders"] }) {
  if (orders.length === 0) return null;
  return (
    <Sheet title="Work that is open">
      <ul className="mb-0 ps-3">
        {orders.map((o) => (
          <li key={o.id}>
            <Link to={`/workshop/orders/${o.id}`}>{o.title}</Link>
            {o.state === "signed" && " · acceptance flight due"}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

import { tiles } from "../parts/columns";
import { useMemo, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { marksOf } from "../drawings/marks";
import { Airframe, extent } from "../drawings/Airframe";
import { Rope } from "../drawings/Rope";
import { VerdictMark, type Verdict } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { page } from "../parts/lists";
import { ReadLabel } from "../find/ReadLabel";
import { SearchField } from "../parts/SearchField";
import { ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { fleetOrders, sortedFleet } from "./model";
import { useFleet, useTypes } from "../api/queries";
import { AddAircraft } from "./AddAircraft";
import { counted } from "../parts/number";
import { useYear } from "../year/api";
import { weeksOf } from "../year/model";
import { YearStrip } from "../year/YearStrip";

/** The fleet, each aircraft drawn as its own plan at one scale, stations tinted by condition. */
export function FleetView() {
  const fleet = useFleet();
  const types = useTypes();
  const may = useMay();
  const [params, change] = useAddress();
  const q = params.get("q") ?? "";
  const set = (k: string, v: string) => change({ [k]: v });
  return (
    <>
      <ViewHead title="Fleet">
        <SearchField
          label="Find an aircraft"
          placeholder="Name, serial, registration"
          value={q}
          onChange={(v) => set("q", v)}
        />
        <Form.Select
          style={{ width: 190 }}
          aria-label="Order"
          value={params.get("by") ?? "name"}
          onChange={(e) => set("by", e.target.value === "name" ? "" : e.target.value)}
        >
          {Object.entries(fleetOrders).map(([k, w]) => (
            <option key={k} value={k}>
              {w}
            </option>
          ))}
        </Form.Select>
        <ReadLabel />
        {may("technician") && <Button onClick={() => set("add", "aircraft")}>Add an aircraft</Button>}
      </ViewHead>
      <QueryView query={fleet} what="the fleet">
        {(f) => (
          <QueryView query={types} what="the types">
            {(t) => <Hangar entries={sortedFleet(f.aircraft, params.get("by"))} types={t.types} q={q} />}
          </QueryView>
        )}
      </QueryView>
      {types.data && (
        <AddAircraft
          open={params.get("add") === "aircraft"}
          onClose={() => set("add", "")}
          types={types.data.types}
        />
      )}
    </>
  );
}

interface HangarProps {
  entries: Schemas["FleetEntry"][];
  types: Schemas["TypeEntry"][];
  q: string;
}

function Hangar({ entries, types, q }: HangarProps) {
  const [many, setMany] = useState(page);
  const year = useYear();
  const byKey = useMemo(() => new Map(types.map((t) => [t.profile.key, t])), [types]);
  const found = entries.filter((e) =>
    `${e.aircraft.name} ${e.aircraft.serial} ${e.aircraft.registration}`
      .toLowerCase()
      .includes(q.toLowerCase()),
  );
  const span = Math.max(0.5, ...entries.map((e) => extent(byKey.get(e.aircraft.type_key)!) * 2));
  if (entries.length === 0) return <Empty>No aircraft yet. A technician or chief adds the first one.</Empty>;
  if (found.length === 0) return <Empty>No aircraft matches “{q}”.</Empty>;
  return (
    <>
      <div className="tiles" style={tiles(250)}>
        {found.slice(0, many).map((e) => {
          const type = byKey.get(e.aircraft.type_key)!;
          const due: Verdict =
            e.next_due_fraction >= 1 ? "stop" : e.next_due_fraction >= 0.9 ? "watch" : "clear";
          return (
            <Link key={e.aircraft.id} to={`/fleet/${e.aircraft.id}`} className="sheet">
              <div className="d-flex align-items-center justify-content-center" style={{ height: 190 }}>
                <Airframe
                  type={type}
                  plain
                  marks={marksOf(e.stations)}
                  span={span}
                  label={`Plan of ${e.aircraft.name}, drawn to scale`}
                />
              </div>
              <div className="d-flex justify-content-between align-items-baseline">
                <h2 className="m-0">{e.aircraft.name}</h2>
                <VerdictMark verdict={e.verdict} />
              </div>
              <div className="soft mb-2">
                {type.profile.name} · {e.aircraft.registration || "not registered"}
                {!e.aircraft.active && " · out of service"}
              </div>
              <Rope used={e.next_due_fraction} verdict={due} label={e.next_due} />
              <div>{e.next_due}</div>
              {year.data && <YearStrip weeks={weeksOf(year.data, e.aircraft.id)} name={e.aircraft.name} />}
              <div className="soft fig mt-auto">
                {e.aircraft.hours.toFixed(1)} h · {counted(e.aircraft.flights, "flight")}
              </div>
            </Link>
          );
        })}
      </div>
      {found.length > many && (
        <Button variant="outline-primary" className="mt-3" onClick={() => setMany(many + page)}>
          Show {Math.min(found.length - many, page)} more of {found.length - many}
        </Button>
      )}
      <p className="soft mt-3">
        All plans at one scale; the picture is {span.toFixed(1)} m wide. A filled mark is a station to look
        at: its name and reason are inside. Under it the last year, week by week: flights as bars, signed work
        as notches, hatched while something stood open, lined where a Stop began.
      </p>
    </>
  );
}

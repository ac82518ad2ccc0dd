import { Filters } from "../parts/Filters";
import { bringFlights } from "./api";
import { usePeople, useFleet } from "../api/queries";
import { Button, Form } from "react-bootstrap";
import { Link } from "react-router";
import { useMay } from "../parts/session";
import { BringIn } from "../parts/BringIn";
import { useAddress } from "../parts/address";
import { SearchField } from "../parts/SearchField";
import { DayFilter } from "../parts/DayFilter";
import { ViewHead } from "../parts/Sheet";
import { Flights } from "./Flights";
import { csvOf } from "./model";
import { Totals } from "./Totals";

/** The log: every flight, totals of the selection, out as CSV and back in. */
export function LogView() {
  const [params, change] = useAddress();
  const may = useMay();
  const people = usePeople();
  const fleet = useFleet();
  const get = (k: string) => params.get(k) || undefined;
  const filter = {
    q: get("q"),
    aircraft: get("aircraft"),
    pilot: get("pilot"),
    from: get("from"),
    to: get("to"),
  };
  const set = (k: string, v: string) => change({ [k]: v });
  const csv = csvOf(filter);
  return (
    <>
      <ViewHead
        title="Log"
        more={
          <>
            <a className="btn btn-outline-primary" href={csv} download="flights.csv">
              Export as CSV
            </a>
            {may() && <ImportLog />}
            <Button variant="outline-primary" onClick={() => print()}>
              Print
            </Button>
          </>
        }
      >
        <Link className="btn btn-outline-primary" to="/log/records">
          Records
        </Link>
      </ViewHead>
      <Filters>
        <SearchField
          label="Words in purpose, remarks, names"
          placeholder="Words"
          value={filter.q ?? ""}
          onChange={(v) => set("q", v)}
        />
        <Form.Select
          aria-label="Aircraft"
          value={filter.aircraft ?? ""}
          onChange={(e) => set("aircraft", e.target.value)}
        >
          <option value="">All aircraft</option>
          {fleet.data?.aircraft.map((a) => (
            <option key={a.aircraft.id} value={a.aircraft.id}>
              {a.aircraft.name}
            </option>
          ))}
        </Form.Select>
        <Form.Select
          aria-label="Pilot"
          value={filter.pilot ?? ""}
          onChange={(e) => set("pilot", e.target.value)}
        >
          <option value="">All pilots</option>
          {people.data?.people
            .filter((p) => p.roles.includes("pilot"))
            .map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
        </Form.Select>
        <DayFilter label="From day" day={filter.from ?? ""} onChange={(d) => set("from", d)} />
        <DayFilter label="To day" day={filter.to ?? ""} onChange={(d) => set("to", d)} />
      </Filters>
      <Totals filter={filter} />
      <Flights filter={filter} />
    </>
  );
}

function ImportLog() {
  return (
    <BringIn
      label="Import CSV"
      writes={["flights", "parts", "packs", "aircraft"]}
      field="CSV file of flights"
      what="flights"
      accept=".csv,text/csv"
      dialog="Import of flights"
      take={bringFlights}
    />
  );
}

import { usePacks } from "../api/queries";
import { lazy, Suspense } from "react";
import { Button, Form } from "react-bootstrap";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { ReadLabel } from "../find/ReadLabel";
import { SearchField } from "../parts/SearchField";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Tabs } from "../parts/Tabs";
import { QueryView } from "../parts/states";
import { AddPack } from "./AddPack";
import { ChargerSheet } from "./ChargerSheet";
import { Forecasts } from "./Forecasts";
import { ImportReadings } from "./ImportReadings";
import { Rack } from "./Rack";
import { SetsSheet } from "./SetsSheet";
import { stateOrder } from "./states";

const RackHealth = lazy(() => import("./RackHealth"));

/** The rack: each pack as its cells, grouped by what it is good for now. */
export function PacksView() {
  const packs = usePacks();
  const may = useMay();
  const [params, change] = useAddress();
  const q = params.get("q") ?? "";
  const state = params.get("state") ?? "";
  const tab = params.get("tab") ?? "rack";
  const set = (k: string, v: string) => change({ [k]: v });
  return (
    <>
      <ViewHead title="Packs">
        <SearchField
          label="Find a pack"
          placeholder="Label, serial, type"
          value={q}
          onChange={(v) => set("q", v)}
        />
        <Form.Select
          style={{ width: 200 }}
          aria-label="State"
          value={state}
          onChange={(e) => set("state", e.target.value)}
        >
          <option value="">All states</option>
          {stateOrder.map((s) => (
            <option key={s}>{s}</option>
          ))}
        </Form.Select>
        <ReadLabel />
        {may("technician") && <Button onClick={() => set("add", "pack")}>Add packs</Button>}
      </ViewHead>
      <Tabs
        label="Leaves of the rack"
        tabs={[
          { key: "rack", name: "Rack" },
          { key: "charge", name: "Charger and files" },
          { key: "sets", name: "Sets" },
          { key: "health", name: "Health over time" },
        ]}
      />
      <QueryView query={packs} what="the rack">
        {(d) =>
          tab === "charge" ? (
            <div className="vstack gap-3">
              <ChargerSheet packs={d.packs} />
              {may("pilot", "crew", "technician") && (
                <Sheet title="Files and forecasts">
                  <div className="d-flex flex-wrap gap-2">
                    <ImportReadings />
                    {may("technician") && <Forecasts />}
                  </div>
                  <p className="soft mt-2 mb-0">
                    A file names its columns with their units: time, pack, cell_1_mv …, cell_1_mohm …, mah_in,
                    mah_out, start_percent, end_percent, temperature_c, rested_min. The same file twice
                    changes nothing.
                  </p>
                </Sheet>
              )}
            </div>
          ) : tab === "sets" ? (
            <SetsSheet />
          ) : tab === "health" ? (
            <Suspense fallback={null}>
              <RackHealth />
            </Suspense>
          ) : (
            <Rack packs={d.packs} q={q} state={state} />
          )
        }
      </QueryView>
      <AddPack open={params.get("add") === "pack"} onClose={() => set("add", "")} />
    </>
  );
}

import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { CellBars } from "../drawings/CellBars";
import { VerdictMark, worst } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { SearchField } from "../parts/SearchField";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Tabs } from "../parts/Tabs";
import { Empty, QueryView } from "../parts/states";
import { AddPack } from "./AddPack";
import { ChargerSheet } from "./ChargerSheet";
import { Forecasts } from "./Forecasts";
import { ImportReadings } from "./ImportReadings";
import { SetsSheet } from "./SetsSheet";
import { counted } from "../parts/number";

type Pack = Schemas["Pack"];

/** The whole rack, page after page. */
async function allPacks(): Promise<{ packs: Pack[] }> {
  const packs: Pack[] = [];
  for (let cursor: string | undefined; ;) {
    const page = await ask(api.GET("/packs", { params: { query: { cursor } } }));
    packs.push(...page.packs);
    if (!page.next_cursor) return { packs };
    cursor = page.next_cursor;
  }
}

export function usePacks() {
  return useQuery({ queryKey: keys.packs, queryFn: allPacks, refetchInterval: 60_000 });
}

const order: Pack["state"][] = [
  "charged",
  "fitted",
  "charging",
  "hot",
  "flown",
  "storage",
  "quarantine",
  "retired",
];
const stateWords: Record<Pack["state"], string> = {
  charged: "Charged, ready to fly",
  fitted: "Fitted",
  charging: "Charging",
  hot: "Hot, cooling down",
  flown: "Flown, to charge or to storage",
  storage: "At storage level",
  quarantine: "Quarantine: do not charge, do not fly",
  retired: "Retired",
};

/** Where the bars of a chemistry begin and end, in mV. */
export function scale(chemistry: string): [number, number] {
  if (chemistry === "LiHV") return [3500, 4400];
  if (chemistry === "Li-ion") return [2900, 4250];
  return [3500, 4250];
}

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
        <select
          className="form-select"
          style={{ width: 200 }}
          aria-label="State"
          value={state}
          onChange={(e) => set("state", e.target.value)}
        >
          <option value="">All states</option>
          {order.map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
        {may("technician") && <Button onClick={() => set("add", "pack")}>Add a pack</Button>}
      </ViewHead>
      <Tabs
        label="Leaves of the rack"
        tabs={[
          { key: "rack", name: "Rack" },
          { key: "charge", name: "Charger and files" },
          { key: "sets", name: "Sets" },
        ]}
      />
      <QueryView query={packs} what="the rack">
        {(d) =>
          tab === "charge" ? (
            <div className="stack">
              <ChargerSheet packs={d.packs} />
              {may("pilot", "crew", "technician") && (
                <Sheet title="Files and forecasts">
                  <div className="choice">
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
          ) : (
            <Rack packs={d.packs} q={q} state={state} />
          )
        }
      </QueryView>
      <AddPack open={params.get("add") === "pack"} onClose={() => set("add", "")} />
    </>
  );
}

function Rack({ packs, q, state }: { packs: Pack[]; q: string; state: string }) {
  const groups = useMemo(() => {
    const found = packs.filter(
      (p) =>
        (!state || p.state === state || (state === "flown" && p.state === "hot")) &&
        `${p.label} ${p.serial} ${p.fits.join(" ")}`.toLowerCase().includes(q.toLowerCase()),
    );
    return order
      .map((s) => ({ state: s, packs: found.filter((p) => p.state === s) }))
      .filter((g) => g.packs.length > 0);
  }, [packs, q, state]);
  if (packs.length === 0)
    return <Empty>There are no packs yet. A technician or chief adds the first one.</Empty>;
  if (groups.length === 0) return <Empty>No pack matches.</Empty>;
  return (
    <div className="stack">
      {groups.map((g) => (
        <section key={g.state}>
          <h2>
            {stateWords[g.state]} <span className="soft fig">{g.packs.length}</span>
          </h2>
          <div className="rack">
            {g.packs.map((p) => (
              <PackCard key={p.id} p={p} />
            ))}
          </div>
        </section>
      ))}
      <p className="soft">
        One bar per cell, all of a chemistry on one scale; a cell that is more than 30 mV behind the best is
        tinted.
      </p>
    </div>
  );
}

function PackCard({ p }: { p: Pack }) {
  const [from, to] = scale(p.chemistry);
  const mv = p.reading?.cell_mv ?? [];
  return (
    <Link to={`/packs/${p.id}`} className="sheet">
      <div className="d-flex justify-content-between align-items-baseline">
        <h3 className="m-0">{p.label}</h3>
        <span className="fig">{p.percent == null ? "? %" : `${Math.round(p.percent)} %`}</span>
      </div>
      {mv.length > 0 ? (
        <CellBars mv={mv} from={from} to={to} label={`Cells of ${p.label}: ${p.sentence}`} height={54} />
      ) : (
        <div className="soft d-flex align-items-center" style={{ height: 54 }}>
          cells not read
        </div>
      )}
      <div className="d-flex justify-content-between mt-1">
        <VerdictMark verdict={worst(p.full ? [p.verdict, p.full.verdict] : [p.verdict])} />
        <span className="soft fig text-nowrap">{p.spread_mv == null ? "" : `${p.spread_mv} mV`}</span>
      </div>
      <div className="soft">
        {p.fitted_to ? `on ${p.fitted_to}` : p.fits.join(", ") || "fits no type"}
        <br />
        {counted(p.cycles, "cycle")}
        {p.health_percent != null && `, health ${Math.round(p.health_percent)}\u00a0%`}
        {p.full && (
          <>
            <br />
            <strong>charged too long</strong>
          </>
        )}
      </div>
    </Link>
  );
}

import { useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { Button } from "react-bootstrap";
import { useParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { CellBars } from "../drawings/CellBars";
import { useAddress } from "../parts/address";
import { VerdictMark } from "../parts/Flag";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { CorrectPack } from "./CorrectPack";
import { Moves } from "./Moves";
import { ReadingsTable } from "./ReadingsTable";
import { ReadPack } from "./ReadPack";
import { SixFaces } from "./SixFaces";
import { StandingSheet } from "./Standing";
import { scale } from "./states";
import { counted } from "../parts/number";

/** One pack: how it stands, its cells, what may be done with it, its readings. */
export function PackView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.pack(id),
    queryFn: () => ask(api.GET("/packs/{id}", { params: { path: { id } } })),
  });
  return (
    <QueryView query={q} what="the pack">
      {(d) => <OnePack d={d} />}
    </QueryView>
  );
}

function OnePack({ d }: { d: Schemas["PackDetail"] }) {
  const p = d.pack;
  const may = useMay();
  const [params] = useAddress();
  const [correct, setCorrect] = useState(false);
  const tab = params.get("tab") ?? "now";
  const [from, to] = scale(p.chemistry);
  const mv = p.reading?.cell_mv ?? [];
  return (
    <>
      <ViewHead title={`Pack ${p.label}`}>
        {may("technician") && p.state !== "fitted" && (
          <Button variant="outline-primary" onClick={() => setCorrect(true)}>
            Correct
          </Button>
        )}
      </ViewHead>
      {correct && <CorrectPack p={p} onClose={() => setCorrect(false)} />}
      <Tabs
        label={`What to see of ${p.label}`}
        tabs={[
          { key: "now", name: "Now" },
          { key: "health", name: "Health" },
          { key: "readings", name: "Readings" },
        ]}
      />
      {tab === "health" && <StandingSheet s={d.standing} rated={p.capacity_mah} />}
      {tab === "now" && (
        <div className="two">
          <div className="vstack gap-3">
            <div className="sheet">
              <div className="d-flex justify-content-between flex-wrap gap-2">
                <VerdictMark verdict={p.verdict} big />
                <span className="fig" style={{ fontSize: "1.6rem" }}>
                  {p.percent == null
                    ? "level not known"
                    : `${Math.round(p.percent)} %${p.percent_plus_minus >= 0.5 ? ` ± ${Math.round(p.percent_plus_minus)}` : ""}`}
                </span>
              </div>
              <p>{p.sentence}</p>
              {mv.length > 0 && <CellBars mv={mv} from={from} to={to} label={p.sentence} height={130} />}
              {mv.length > 0 && (
                <div className="soft">
                  Bars from {(from / 1000).toFixed(2)} to {(to / 1000).toFixed(2)} V
                </div>
              )}
              {mv.length > 0 && (
                <div className="soft fig mt-1">
                  {mv.map((v, i) => (
                    <Fragment key={i}>
                      <span className="text-nowrap">
                        {i + 1}: {v}
                      </span>{" "}
                    </Fragment>
                  ))}
                  mV
                </div>
              )}
              <p className="soft mt-2 mb-0">
                {p.serial || "serial number not on file"} · {p.chemistry}, {p.cells} cells, {p.capacity_mah}{" "}
                mAh · {counted(p.cycles, "cycle")} · fits {p.fits.join(", ") || "no type"} ·{" "}
                {p.equivalent_cycles.toFixed(1)} full cycles
              </p>
              {p.full && (
                <p className="mt-2 mb-0">
                  <VerdictMark verdict={p.full.verdict} /> {p.full.sentence}
                </p>
              )}
            </div>
          </div>
          <div className="vstack gap-3">
            {may("pilot", "crew", "technician") && (
              <>
                <Moves key={p.version} p={p} />
                <SixFaces d={d} may={p.state !== "retired"} />
                {p.state !== "retired" && <ReadPack p={p} />}
              </>
            )}
            {!may("pilot", "crew", "technician") && <SixFaces d={d} may={false} />}
          </div>
        </div>
      )}
      {tab === "readings" && (
        <Sheet title="Readings, newest first">
          {d.readings.length === 0 ? (
            <Empty>Never read. Read it before it flies.</Empty>
          ) : (
            <ReadingsTable pack={p.id} first={d.readings} next={d.next_cursor} />
          )}
        </Sheet>
      )}
    </>
  );
}

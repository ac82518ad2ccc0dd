import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { Button } from "react-bootstrap";
import { useParams } from "react-router";
import { api, ask, ProblemError, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { CellBars } from "../drawings/CellBars";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { DisposePack } from "./DisposePack";
import { ReadingsTable } from "./ReadingsTable";
import { ReadPack } from "./ReadPack";
import { SixFaces } from "./SixFaces";
import { StandingSheet } from "./Standing";
import { scale } from "./PacksView";
import { counted } from "../parts/number";

type Pack = Schemas["Pack"];
const moveWords: Record<Pack["state"], string> = {
  storage: "At storage level",
  charging: "Put on charge",
  charged: "Charged",
  fitted: "Fitted",
  hot: "Hot",
  flown: "Cooled down",
  quarantine: "Quarantine",
  retired: "Retire",
};

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
  const [from, to] = scale(p.chemistry);
  const mv = p.reading?.cell_mv ?? [];
  return (
    <>
      <ViewHead title={`Pack ${p.label}`} />
      <div className="two">
        <div className="stack">
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
              {p.serial} · {p.chemistry}, {p.cells} cells, {p.capacity_mah} mAh · {counted(p.cycles, "cycle")}{" "}
              · fits {p.fits.join(", ") || "no type"} · {p.equivalent_cycles.toFixed(1)} full cycles
            </p>
            {p.full && (
              <p className="mt-2 mb-0">
                <VerdictMark verdict={p.full.verdict} /> {p.full.sentence}
              </p>
            )}
          </div>
          <StandingSheet s={d.standing} rated={p.capacity_mah} />
        </div>
        <div className="stack">
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
      <div className="mt-3 stack">
        <Sheet title="Readings, newest first">
          {d.readings.length === 0 ? (
            <Empty>Never read. Read it before it flies.</Empty>
          ) : (
            <ReadingsTable pack={p.id} first={d.readings} next={d.next_cursor} />
          )}
        </Sheet>
      </div>
    </>
  );
}

function Moves({ p }: { p: Pack }) {
  const qc = useQueryClient();
  const z = useZone();
  const [error, setError] = useState<unknown>();
  const [asking, setAsking] = useState<Pack["state"] | null>(null);
  const [note, setNote] = useState("");
  const [disposing, setDisposing] = useState(false);
  const may = useMay();
  const move = async (state: Pack["state"]) => {
    setError(undefined);
    try {
      await ask(
        api.POST("/packs/{id}/state", {
          params: { path: { id: p.id } },
          body: { state, note, version: p.version },
        }),
      );
      setAsking(null);
      await qc.invalidateQueries();
    } catch (e) {
      setError(e);
    }
  };
  const needsNote = (s: Pack["state"]) => s === "quarantine" || s === "retired" || p.state === "quarantine";
  return (
    <Sheet title={`Now: ${p.state}`} aside={<span className="soft fig">since {z.both(p.state_since)}</span>}>
      {p.fitted_to && <p>Fitted to {p.fitted_to}.</p>}
      {error !== undefined && asking === null && <Problem error={error} />}
      <div className="choice">
        {p.moves.map((s) => (
          <Button
            key={s}
            variant={s === "quarantine" ? "outline-danger" : "outline-primary"}
            onClick={() => (needsNote(s) ? setAsking(s) : void move(s))}
          >
            {moveWords[s]}
          </Button>
        ))}
        {p.state === "quarantine" && may("technician") && (
          <Button variant="outline-danger" onClick={() => setDisposing(true)}>
            Dispose of it
          </Button>
        )}
        {p.moves.length === 0 && <span className="soft">This is its last state.</span>}
      </div>
      {disposing && <DisposePack p={p} onClose={() => setDisposing(false)} />}
      <Dialog
        title={`${p.label}: ${asking ? moveWords[asking] : ""}`}
        open={asking !== null}
        onClose={() => setAsking(null)}
      >
        {error !== undefined && !(error instanceof ProblemError && error.fields.length > 0) && (
          <Problem error={error} />
        )}
        <AreaField
          label="Why: what was seen or measured"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          wrong={
            error instanceof ProblemError ? error.fields.find((x) => x.field === "note")?.sentence : undefined
          }
        />
        <Button
          className="w-100"
          variant={asking === "quarantine" ? "danger" : "primary"}
          onClick={() => asking && void move(asking)}
        >
          Put on record
        </Button>
      </Dialog>
    </Sheet>
  );
}

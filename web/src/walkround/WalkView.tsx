import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { typing } from "../app/Shortcuts";
import { useMay } from "../app/session";
import { Airframe, type StationMark } from "../drawings/Airframe";
import { Dialog } from "../parts/Dialog";
import { Flag, VerdictMark, words, worst } from "../parts/Flag";
import { ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { ItemEntry } from "./ItemEntry";

type Run = Schemas["Walkround"];

/** A walk round one aircraft: the plan with the way round it, and one item at a time. */
export function WalkView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.walkround(id),
    queryFn: () => ask(api.GET("/walkrounds/{id}", { params: { path: { id } } })),
  });
  return (
    <QueryView query={q} what="the walkround">
      {(w) => <Walk w={w} />}
    </QueryView>
  );
}

/** Stations in the order of the walk, each once. */
function wayRound(items: Schemas["Item"][]): string[] {
  return [...new Set(items.map((i) => i.station))];
}

function Walk({ w }: { w: Run }) {
  const qc = useQueryClient();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const may = useMay();
  const [list, setList] = useState(false);
  const [error, setError] = useState<unknown>();
  const [giveUp, setGiveUp] = useState(false);
  const entries = useMemo(() => new Map(w.entries.map((e) => [e.item_id, e])), [w.entries]);
  const firstOpen = w.items.findIndex((i) => !entries.has(i.id));
  const asked = w.items.findIndex((i) => i.id === params.get("item"));
  const at = asked >= 0 ? asked : firstOpen >= 0 ? firstOpen : w.items.length;
  const item = w.items[at];
  const ended = Boolean(w.completed_at) || w.abandoned;
  const stops = w.entries.filter((e) => e.judgement.verdict === "stop");

  const show = useCallback(
    (i: number) => setParams(w.items[i] ? { item: w.items[i].id } : {}, { replace: true }),
    [setParams, w.items],
  );
  const next = useCallback(
    (done: Run) => {
      qc.setQueryData(keys.walkround(w.id), done);
      const have = new Set(done.entries.map((e) => e.item_id));
      const after = done.items.findIndex((it, i) => i > at && !have.has(it.id));
      if (after >= 0) show(after);
      else setParams({}, { replace: true });
    },
    [qc, w.id, at, show, setParams],
  );
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (typing(e) || document.querySelector(".modal.show")) return;
      if (e.key === "ArrowRight") show(Math.min(at + 1, w.items.length - 1));
      if (e.key === "ArrowLeft") show(Math.max(at - 1, 0));
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [at, show, w.items.length]);

  const complete = async () => {
    setError(undefined);
    try {
      await ask(api.POST("/walkrounds/{id}/complete", { params: { path: { id: w.id } } }));
      await qc.invalidateQueries();
    } catch (e) {
      setError(e);
    }
  };
  const abandon = async () => {
    try {
      await ask(api.DELETE("/walkrounds/{id}", { params: { path: { id: w.id } } }));
      await qc.invalidateQueries();
      void go(`/fleet/${w.aircraft_id}`);
    } catch (e) {
      setGiveUp(false);
      setError(e);
    }
  };

  return (
    <>
      <ViewHead title={`${w.kind === "turnaround" ? "Turnaround" : "Walkround"}: ${w.aircraft}`}>
        <Button variant="outline-primary" onClick={() => setList(true)}>
          All {w.items.length} items
        </Button>
        {!ended && (
          <Button variant="outline-primary" onClick={() => setGiveUp(true)}>
            Give up
          </Button>
        )}
      </ViewHead>
      <div
        className="progress-line"
        role="progressbar"
        aria-label="Items done"
        aria-valuemin={0}
        aria-valuemax={w.items.length}
        aria-valuenow={w.items.length - w.missing}
      >
        <div style={{ width: `${(100 * (w.items.length - w.missing)) / Math.max(w.items.length, 1)}%` }} />
      </div>
      {error !== undefined && <Problem error={error} />}
      {w.notes.length > 0 && !ended && <Wanted notes={w.notes} />}
      {stops.length > 0 && (
        <div className="pinned d-flex gap-2 align-items-center flex-wrap" role="status">
          <Flag verdict="stop" size={16} />
          <strong>Stops the flight:</strong>
          {stops.map((e) => (
            <button
              type="button"
              key={e.item_id}
              className="btn btn-link p-0"
              onClick={() => show(w.items.findIndex((i) => i.id === e.item_id))}
            >
              {w.items.find((i) => i.id === e.item_id)?.title}
            </button>
          ))}
        </div>
      )}
      <div className="walk">
        <div className="plan">
          <Plan
            w={w}
            entries={entries}
            here={item?.station}
            onSelect={(s) => show(w.items.findIndex((i) => i.station === s))}
          />
        </div>
        {ended ? (
          <Ended w={w} />
        ) : item ? (
          <ItemEntry
            key={item.id}
            run={w}
            item={item}
            entry={entries.get(item.id)}
            position={`${at + 1} of ${w.items.length}`}
            onSaved={next}
            onBack={at > 0 ? () => show(at - 1) : undefined}
            readOnly={!may("pilot", "crew", "technician")}
          />
        ) : (
          <Finish w={w} onComplete={() => void complete()} />
        )}
      </div>
      <Dialog title="All items" open={list} onClose={() => setList(false)}>
        <ItemList
          w={w}
          entries={entries}
          here={item?.id}
          onChoose={(i) => {
            setList(false);
            show(i);
          }}
        />
      </Dialog>
      <Dialog title="Give this walk up?" open={giveUp} onClose={() => setGiveUp(false)}>
        <p>
          It will be no check. What was found on it so far stays: defects are open, and a pack in quarantine
          stays there.
        </p>
        <Button variant="danger" className="w-100" onClick={() => void abandon()}>
          Give it up
        </Button>
      </Dialog>
    </>
  );
}

/** What pilots wanted changed before this flight: read before walking. */
function Wanted({ notes }: { notes: Run["notes"] }) {
  const z = useZone();
  return (
    <div className="notices" role="note" aria-label="From earlier flights">
      <strong>Wanted before the next flight:</strong>
      <ul className="plain">
        {notes.map((n) => (
          <li key={n.at + n.text}>
            {n.text}{" "}
            <span className="soft">
              {n.by}, {z.both(n.at)}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

type Entries = Map<string, Schemas["Entry"]>;

function Plan({
  w,
  entries,
  here,
  onSelect,
}: {
  w: Run;
  entries: Entries;
  here?: string;
  onSelect: (s: string) => void;
}) {
  const way = wayRound(w.items);
  const marks: Record<string, StationMark> = {};
  way.forEach((station, n) => {
    const mine = w.items.filter((i) => i.station === station);
    const done = mine.filter((i) => entries.has(i.id));
    const verdict = worst(done.map((i) => entries.get(i.id)!.judgement.verdict));
    marks[station] = {
      number: n + 1,
      here: station === here,
      done: done.length === mine.length && verdict === "clear",
      verdict: done.length ? verdict : undefined,
      label: `${done.length} of ${mine.length} done${done.length ? `, ${words[verdict]}` : ""}`,
    };
  });
  const onPlan = way.filter((s) => w.type.stations.find((x) => x.id === s)?.kind !== "controller");
  return (
    <Airframe
      type={w.type}
      marks={marks}
      path={onPlan}
      selected={here}
      onSelect={onSelect}
      height="min(66vh, 540px)"
      label={`Plan of ${w.aircraft} with the way round it`}
    />
  );
}

function ItemList({
  w,
  entries,
  here,
  onChoose,
}: {
  w: Run;
  entries: Entries;
  here?: string;
  onChoose: (i: number) => void;
}) {
  let section = "";
  return (
    <ul className="item-list">
      {w.items.map((it, i) => {
        const e = entries.get(it.id);
        const head = it.section !== section ? it.section : undefined;
        section = it.section ?? "";
        return (
          <li key={it.id}>
            {head && <h3 className="mt-3">{head}</h3>}
            <button type="button" className={it.id === here ? "here" : ""} onClick={() => onChoose(i)}>
              <span className="box">
                {e ? <Flag verdict={e.judgement.verdict} size={14} /> : <span aria-hidden="true">○</span>}
              </span>
              <span>
                {it.title}
                <span className="visually-hidden">{e ? `: ${words[e.judgement.verdict]}` : ": open"}</span>
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}

function Finish({ w, onComplete }: { w: Run; onComplete: () => void }) {
  const bad = w.entries.filter((e) => e.judgement.verdict !== "clear");
  return (
    <div>
      <h2>Every item has an entry</h2>
      <VerdictMark verdict={w.verdict} big />
      {bad.length === 0 && <p>Nothing was found.</p>}
      <ul className="mt-2">
        {bad.map((e) => (
          <li key={e.item_id}>
            <strong>{w.items.find((i) => i.id === e.item_id)?.title}</strong>:{" "}
            {e.value.note || e.judgement.sentence}
          </li>
        ))}
      </ul>
      <p className="soft">
        Completing puts all entries on record under your name. They do not change afterwards.
      </p>
      <Button className="btn-big w-100" onClick={onComplete}>
        Complete the {w.kind}
      </Button>
    </div>
  );
}

function Ended({ w }: { w: Run }) {
  const z = useZone();
  if (w.abandoned) return <p>This walk was given up; it is no check. What was found on it stays open.</p>;
  const bad = w.entries.filter((e) => e.judgement.verdict !== "clear");
  return (
    <div>
      <h2>On record</h2>
      <VerdictMark verdict={w.verdict} big />
      <p className="mt-2">
        Completed by {w.completed_by}, {w.completed_at && z.both(w.completed_at)}, checklist version{" "}
        {w.checklist_version}.
      </p>
      <ul>
        {bad.map((e) => (
          <li key={e.item_id}>
            <strong>{w.items.find((i) => i.id === e.item_id)?.title}</strong>:{" "}
            {e.value.note || e.judgement.sentence}
          </li>
        ))}
      </ul>
      <div className="choice">
        <Link
          className="btn btn-primary btn-big"
          to={`/gate/${w.aircraft_id}?packs=${w.packs.map((p) => p.id).join(",")}`}
        >
          Ask the gate
        </Link>
        <Link className="btn btn-outline-primary btn-big" to={`/fleet/${w.aircraft_id}`}>
          {w.aircraft}
        </Link>
      </div>
    </div>
  );
}

import { columns } from "../parts/columns";
import { useMemo, useState } from "react";
import { Button, ProgressBar } from "react-bootstrap";
import { useQuiet } from "../parts/quiet";
import { useMay, useSession } from "../parts/session";
import { useAbout } from "../outbox/hooks";
import type { About } from "../outbox/model";
import { Refused, Waits } from "../outbox/Waits";
import { afterPaint } from "../parts/afterPaint";
import { Dialog } from "../parts/Dialog";
import { letGo } from "../parts/letGo";
import { ViewHead } from "../parts/Sheet";
import { useWalkPress } from "./api";
import { Ended } from "./Ended";
import { Finish } from "./Finish";
import { GiveUp } from "./GiveUp";
import { ItemEntry } from "./ItemEntry";
import { ItemList } from "./ItemList";
import { LeftOut } from "./LeftOut";
import { nextOpen, stationsOf, type RunSeen } from "./model";
import { Pinned } from "./Pinned";
import { WalkPlan } from "./WalkPlan";
import { useStep } from "./useStep";
import { Wanted } from "./Wanted";

export interface WalkShown {
  w: RunSeen;
  about: About;
}

export function Walk({ w, about }: WalkShown) {
  const may = useMay();
  const { person } = useSession();
  const raised = useAbout(w.aircraft_id); // defects raised on the way
  const press = useWalkPress(w.id);
  const { at, show } = useStep(w, person.name);
  const [list, setList] = useState(false);
  const [giveUp, setGiveUp] = useState(false);
  const entries = useMemo(() => new Map(w.entries.map((e) => [e.item_id, e])), [w.entries]);
  const item = w.items[at];
  const ended = Boolean(w.completed_at) || w.abandoned;
  useQuiet(!ended);
  const done = w.items.length - w.missing;
  const above = (
    <>
      <Refused refused={raised.refused} />
      <Waits about={about} />
    </>
  );

  return (
    <>
      <ViewHead title={`${w.title}: ${w.aircraft}`}>
        <Button variant="outline-primary" onClick={() => setList(true)}>
          All {w.items.length} items
        </Button>
      </ViewHead>
      <ProgressBar className="mb-2">
        <ProgressBar aria-label="Items done" now={done} max={Math.max(w.items.length, 1)} />
      </ProgressBar>
      {w.notes.length > 0 && !ended && <Wanted notes={w.notes} />}
      <Pinned w={w} onShow={show} />
      <div className="walk two flex-grow-1" style={columns("minmax(280px, 43%) minmax(0, 1fr)")}>
        <div className="sticky-lg-top z-0" style={{ top: "4rem" }}>
          <WalkPlan
            w={w}
            entries={entries}
            here={item?.station}
            onSelect={(s) => show(w.items.findIndex((i) => stationsOf(i).includes(s)))}
          />
        </div>
        {ended ? (
          <Ended w={w} waits={about.waiting.length > 0} above={above} />
        ) : item ? (
          <ItemEntry
            key={item.id}
            run={w}
            item={item}
            entry={entries.get(item.id)}
            position={`${at + 1} of ${w.items.length}`}
            onEntered={(value, judgement) => {
              // Kept at once; the page follows when the key has answered.
              press("walk.entry", { item_id: item.id, title: item.title, value, judgement }, afterPaint);
              afterPaint(letGo);
              show(nextOpen(w, person.name, at, item.id), afterPaint);
            }}
            onBack={at > 0 ? () => show(at - 1) : undefined}
            readOnly={!may("pilot", "crew", "technician")}
            above={above}
          />
        ) : (
          <Finish
            w={w}
            onComplete={() => press("walk.complete", { kind: w.title.toLowerCase() })}
            above={above}
          />
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
        <LeftOut w={w} />
        {!ended && (
          <Button
            variant="outline-danger"
            className="mt-3 w-100"
            onClick={() => {
              setList(false);
              setGiveUp(true);
            }}
          >
            Give up
          </Button>
        )}
      </Dialog>
      <GiveUp w={w} open={giveUp} onClose={() => setGiveUp(false)} />
    </>
  );
}

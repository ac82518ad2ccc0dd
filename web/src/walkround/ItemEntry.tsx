import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { RaiseDefect } from "../workshop/RaiseDefect";
import { afterPaint } from "../parts/afterPaint";
import { readDraft, writeDraft } from "../parts/drafts";
import { entryDraft, useOffer } from "./api";
import { Before } from "./Before";
import { EntryFields } from "./EntryFields";
import { Judged } from "./Judged";
import { ItemKeys } from "./ItemKeys";
import { compassId, type Item, type RunSeen, type Seen, type Value } from "./model";
import { confirmed, inOrder, typedFrom, untouched, valueOf, type Typed } from "./typed";
import { Offered } from "./Offered";
import { OfThisPlace } from "./OfThisPlace";
import { WhatBad } from "./WhatBad";
import { Said } from "./Said";
import { judgeNow, useInOrder, useJudged } from "./useJudged";
import { Thumb } from "../parts/Thumb";

export interface ItemEntryProps {
  run: RunSeen;
  item: Item;
  entry?: Seen;
  position: string;
  onEntered: (value: Value, judgement?: Schemas["Judgement"]) => void;
  onBack?: () => void;
  readOnly: boolean;
  /** What stands above the keys: refusals, and what waits. */
  above: ReactNode;
}

/** One item: what to do and why, the entry, its verdict while it is typed, and the keys under the thumb. */
export function ItemEntry({
  run,
  item,
  entry,
  position,
  onEntered,
  onBack,
  readOnly,
  above,
}: ItemEntryProps) {
  const { person } = useSession();
  const draftKey = entryDraft(run.id, item.id);
  const own = entry?.by === person.name ? entry : undefined; // nobody goes on with what another one saw
  const [typed, setTyped] = useState<Typed>(() => ({
    ...typedFrom(own?.value),
    ...readDraft<Typed>(draftKey),
  }));
  const [wrong, setWrong] = useState("");
  const [defect, setDefect] = useState(false);
  const [noted, setNoted] = useState(false); // the key answers before its page goes
  const clear = inOrder(item, typed);
  const offer = useOffer(run.id, item);
  const known = !readOnly && !own && untouched(typed) ? confirmed(offer, typed.note) : undefined;
  const judgedKnown = useJudged(run, item, known?.value);
  const { value, sentence } = valueOf(item, typed);
  const judged = useJudged(run, item, value, own?.judgement);
  const judgedInOrder = useInOrder(item);

  const change = (part: Partial<Typed>) => {
    const t = { ...typed, ...part };
    setTyped(t);
    setWrong("");
    writeDraft(draftKey, t); // nothing typed is lost on a reload
  };
  const note = (value: Value, judgement?: Schemas["Judgement"]) => {
    setNoted(true);
    onEntered(value, judgement);
    afterPaint(() => setNoted(false)); // where it is the same item again
  };
  const enter = () => {
    if (readOnly || noted) return;
    if (clear) return note(clear, judgedInOrder());
    if (known && !judgedKnown.sentence) return note(known.value, judgedKnown.judgement);
    const now = valueOf(item, typed, Date.now()); // a timer has run on since it was shown
    const said = now.value ? (judgeNow(run, item, now.value) ?? judged) : judged;
    if (!now.value || said.sentence) setWrong(said.sentence ?? now.sentence ?? "Enter a value first.");
    else note(now.value, said.judgement);
  };
  return (
    <>
      <form
        className="d-flex flex-column d-lg-block"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          enter();
        }}
      >
        <div className="soft">
          {item.section} · {position}
        </div>
        <h2>{item.title}</h2>
        <p className="mb-1">{item.how}</p>
        <p className="soft">
          {item.why} {item.bad && `Bad: ${item.bad}`} {item.do && `Then: ${item.do}`}
        </p>
        {known && (
          <Offered o={known} judged={judgedKnown} note={typed.note} onNote={(note) => change({ note })} />
        )}
        <EntryFields
          item={item}
          typed={typed}
          sentence={sentence}
          calm={known !== undefined}
          change={change}
          onRaise={() => setDefect(true)}
          onEnter={(v) => !readOnly && !noted && note(v, judgeNow(run, item, v)?.judgement)}
        />
        {item.id === compassId && (
          <p>
            <Link to={`/fleet/${run.aircraft_id}`}>Put the calibration on record</Link>, with the place and
            the nearest metal.
          </p>
        )}
        {item.hands === 2 && <p className="soft mb-1">Two people say this one, each by themselves.</p>}
        {entry && <Said entry={entry} me={person.name} />}
        <OfThisPlace aircraft={run.aircraft_id} item={item} />
        <WhatBad item={item} />
        <Before run={run.id} item={item.id} photos={typed.photos} />
        <Thumb>
          {above}
          {(!known || wrong) && <Judged judged={judged.judgement} wrong={wrong || judged.sentence} />}
          <ItemKeys
            item={item}
            typed={typed}
            clear={clear !== undefined}
            known={known !== undefined}
            noted={noted}
            readOnly={readOnly}
            change={change}
            onBack={onBack}
          />
        </Thumb>
      </form>
      {defect && (
        <RaiseDefect
          open
          onClose={() => setDefect(false)}
          aircraft={run.aircraft_id}
          stations={run.type.stations}
          station={item.station}
          title={typed.note.slice(0, 120)}
          walkround={run.id}
        />
      )}
    </>
  );
}

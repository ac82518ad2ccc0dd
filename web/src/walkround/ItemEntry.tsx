import { useState, type ReactNode } from "react";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useSession } from "../app/session";
import { RaiseDefect } from "../fleet/RaiseDefect";
import { afterPaint } from "../parts/afterPaint";
import { readDraft, writeDraft } from "../parts/drafts";
import { entryDraft } from "./api";
import { EntryFields } from "./EntryFields";
import { Judged } from "./Judged";
import { typedFrom, valueOf, type Item, type RunSeen, type Seen, type Typed, type Value } from "./model";
import { Said } from "./Said";
import { useInOrder, useJudged } from "./useJudged";

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
  const look = item.kind === "look" && typed.look !== "defect";
  const { value, sentence } = valueOf(item, typed);
  const judged = useJudged(run, item, value, own?.judgement);
  const inOrder = useInOrder(item);

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
    if (look) {
      const ok: Value = { look: "ok", ...(typed.photos.length ? { photos: typed.photos } : {}) };
      note(ok, inOrder());
    } else if (!value || judged.sentence) setWrong(judged.sentence ?? sentence ?? "Enter a value first.");
    else note(value, judged.judgement);
  };
  return (
    <>
      <form
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
        <p className="soft">{item.why}</p>
        <EntryFields
          item={item}
          typed={typed}
          sentence={sentence}
          change={change}
          onRaise={() => setDefect(true)}
        />
        {entry && <Said entry={entry} me={person.name} />}
        <div className="thumb">
          {above}
          <Judged judged={judged.judgement} wrong={wrong || judged.sentence} />
          <div className="keys">
            {onBack && (
              <Button
                type="button"
                variant="outline-primary"
                className="btn-big narrow"
                aria-label="Back"
                onClick={onBack}
              >
                ←
              </Button>
            )}
            {item.kind === "look" && (
              <Button
                type="button"
                variant={look ? "outline-danger" : "outline-primary"}
                className="btn-big"
                disabled={readOnly}
                aria-pressed={!look}
                onClick={() => change({ look: look ? "defect" : "" })}
              >
                {look ? "Defect" : "No defect"}
              </Button>
            )}
            <Button type="submit" className="btn-big" disabled={readOnly} autoFocus={item.kind === "look"}>
              {noted ? "Noted ✓" : look ? "In order, next" : "Save, next"}
            </Button>
          </div>
        </div>
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

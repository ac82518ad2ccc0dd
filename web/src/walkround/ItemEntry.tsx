import { useEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, ProblemError, type Schemas } from "../api/client";
import { RaiseDefect } from "../fleet/acts";
import { CellsField, readCells } from "../parts/CellsField";
import { AreaField, NumberField } from "../parts/Field";
import { clearDraft, readDraft, writeDraft } from "../parts/drafts";
import { VerdictMark } from "../parts/Flag";
import { parseInRange, parseNumber } from "../parts/number";
import { PhotoField } from "../parts/PhotoField";

type Item = Schemas["Item"];
type Value = Schemas["ItemValue"];

interface Typed {
  look: "" | "ok" | "defect";
  note: string;
  photos: string[];
  number: string;
  set: string[];
}

export interface ItemEntryProps {
  run: Schemas["Walkround"];
  item: Item;
  entry?: Schemas["Entry"];
  position: string;
  onSaved: (run: Schemas["Walkround"]) => void;
  onBack?: () => void;
  readOnly: boolean;
}

function typedFrom(v: Value | undefined): Typed {
  return {
    look: (v?.look as Typed["look"]) ?? "",
    note: v?.note ?? "",
    photos: v?.photos ?? [],
    number: v?.number === undefined ? "" : String(v.number),
    set: (v?.set ?? []).map(String),
  };
}

/** What was typed as a value of the item's kind; a sentence when it is not usable, nothing when it is not there yet. */
function valueOf(item: Item, t: Typed): { value?: Value; sentence?: string } {
  const common = { ...(t.note ? { note: t.note } : {}), ...(t.photos.length ? { photos: t.photos } : {}) };
  switch (item.kind) {
    case "look":
      return t.look ? { value: { look: t.look, ...common } } : {};
    case "reading": {
      const p = parseInRange(t.number, item.min ?? -Infinity, item.max ?? Infinity, unitOf(item));
      if (p.ok) return { value: { number: p.value, ...common } };
      return p.empty ? {} : { sentence: p.sentence };
    }
    case "cells": {
      if (t.set.filter((x) => x.trim()).length < (item.count ?? 0)) return {};
      const c = readCells(t.set);
      return c.ok ? { value: { set: c.mv, ...common } } : { sentence: c.sentence };
    }
    default: {
      if (t.set.filter((x) => x.trim()).length < (item.count ?? 0)) return {};
      const set: number[] = [];
      for (let i = 0; i < t.set.length; i++) {
        const p = parseNumber(t.set[i] ?? "");
        if (!p.ok) return { sentence: `Motor ${i + 1}: ${p.empty ? "enter a value." : p.sentence}` };
        set.push(p.value);
      }
      return { value: { set, ...common } };
    }
  }
}

function unitOf(item: Item): string {
  return { degC: "°C", deg: "°", ohm: "Ω" }[item.unit ?? ""] ?? item.unit ?? "";
}

/** One item: what to do and why, the entry, and its verdict while it is typed. */
export function ItemEntry({ run, item, entry, position, onSaved, onBack, readOnly }: ItemEntryProps) {
  const draftKey = `walk-${run.id}-${item.id}`;
  const [typed, setTyped] = useState<Typed>(() => ({
    ...typedFrom(entry?.value),
    ...readDraft<Typed>(draftKey),
  }));
  const [judged, setJudged] = useState<Schemas["Judgement"] | undefined>(entry?.judgement);
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const [defect, setDefect] = useState(false);
  const turn = useRef(0);
  const { value, sentence } = valueOf(item, typed);
  const shape = JSON.stringify(value);

  const change = (part: Partial<Typed>) => {
    const t = { ...typed, ...part };
    setTyped(t);
    setWrong("");
    writeDraft(draftKey, t); // nothing typed is lost on a reload
  };

  useEffect(() => {
    const mine = ++turn.current;
    if (!shape) return;
    const timer = setTimeout(() => {
      ask(
        api.POST("/walkrounds/{id}/judge", {
          params: { path: { id: run.id } },
          body: { item_id: item.id, value: JSON.parse(shape) as Value },
        }),
      )
        .then((j) => {
          if (mine === turn.current) {
            setJudged(j);
            setWrong("");
          }
        })
        .catch((e: unknown) => {
          if (mine !== turn.current) return;
          setJudged(undefined);
          if (e instanceof ProblemError && e.type !== "unreachable") setWrong(e.message);
        });
    }, 180);
    return () => clearTimeout(timer);
  }, [shape, run.id, item.id]);

  const save = async (v: Value | undefined) => {
    if (!v) {
      setWrong(sentence ?? (item.kind === "look" ? "Choose ok or defect." : "Enter a value first."));
      return;
    }
    setBusy(true);
    try {
      const done = await ask(
        api.PUT("/walkrounds/{id}/entries", {
          params: { path: { id: run.id } },
          body: { entries: [{ item_id: item.id, value: v }] },
        }),
      );
      clearDraft(draftKey);
      onSaved(done);
    } catch (e) {
      setBusy(false);
      setWrong(e instanceof Error ? e.message : "This was not saved. Try again.");
    }
  };
  const ok = () =>
    void save(
      item.kind === "look" && typed.look !== "defect"
        ? { look: "ok", ...(typed.photos.length ? { photos: typed.photos } : {}) }
        : value,
    );

  return (
    <>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (!busy && !readOnly) ok();
        }}
      >
        <div className="soft">
          {item.section} · {position}
        </div>
        <h2>{item.title}</h2>
        <p className="mb-1">{item.how}</p>
        <p className="soft">{item.why}</p>
        {item.kind === "look" && (
          <div className="choice mb-3" role="group" aria-label="What was seen">
            <Button
              type="button"
              variant={typed.look === "ok" ? "primary" : "outline-primary"}
              aria-pressed={typed.look === "ok"}
              onClick={() => change({ look: "ok" })}
            >
              In order
            </Button>
            <Button
              type="button"
              variant={typed.look === "defect" ? "danger" : "outline-danger"}
              aria-pressed={typed.look === "defect"}
              onClick={() => change({ look: "defect" })}
            >
              Defect
            </Button>
          </div>
        )}
        {item.kind === "look" && typed.look === "defect" && (
          <>
            <AreaField
              label="What the defect is"
              value={typed.note}
              autoFocus
              onChange={(e) => change({ note: e.target.value })}
            />
            <PhotoField photos={typed.photos} onChange={(photos) => change({ photos })} />
            <Button type="button" variant="outline-danger" className="mb-3" onClick={() => setDefect(true)}>
              Raise it as a defect of the aircraft too
            </Button>
          </>
        )}
        {item.kind === "reading" && (
          <NumberField
            label={`${cap(item.quantity)}`}
            unit={unitOf(item)}
            autoFocus
            value={typed.number}
            onChange={(e) => change({ number: e.target.value })}
            hint={`The field takes ${item.min} to ${item.max} ${unitOf(item)}.`}
            wrong={typed.number && sentence ? sentence : undefined}
          />
        )}
        {(item.kind === "cells" || item.kind === "motors") && (
          <CellsField
            label={item.kind === "cells" ? "Every cell" : `${cap(item.quantity)} of each motor`}
            unit={item.kind === "cells" ? "mV or V" : unitOf(item)}
            name={item.kind === "cells" ? undefined : (i) => `Motor ${i + 1}`}
            count={item.count ?? 0}
            values={typed.set}
            onChange={(set) => change({ set })}
            wrong={typed.set.length ? sentence : undefined}
          />
        )}
        <Judged judged={value ? judged : undefined} wrong={wrong} />
        {entry?.others.map((o) => (
          <p key={o.by + o.sentence} className="mb-1">
            <VerdictMark verdict={o.verdict} /> {o.by}: {o.sentence}{" "}
            <span className="soft">The worse of what was said counts.</span>
          </p>
        ))}
        <div className="thumb">
          {onBack && (
            <Button type="button" variant="outline-primary" className="btn-big narrow" onClick={onBack}>
              Back
            </Button>
          )}
          <Button type="submit" className="btn-big" disabled={busy || readOnly}>
            {item.kind === "look" && typed.look !== "defect" ? "In order, next" : "Save, next"}
          </Button>
        </div>
      </form>
      <RaiseDefect
        open={defect}
        onClose={() => setDefect(false)}
        aircraft={run.aircraft_id}
        stations={run.type.stations}
        station={item.station}
        title={typed.note.slice(0, 120)}
        walkround={run.id}
      />
    </>
  );
}

function Judged({ judged, wrong }: { judged?: Schemas["Judgement"]; wrong: string }) {
  if (wrong)
    return (
      <div className="judged stop" role="alert">
        {wrong}
      </div>
    );
  if (!judged)
    return (
      <div className="judged none" role="status">
        The verdict appears as soon as there is an entry.
      </div>
    );
  return (
    <div className={`judged ${judged.verdict}`} role="status">
      <VerdictMark verdict={judged.verdict} /> {judged.sentence}
      <div className="soft">Against: {judged.against}</div>
    </div>
  );
}

function cap(s = ""): string {
  return s.charAt(0).toUpperCase() + s.slice(1);
}

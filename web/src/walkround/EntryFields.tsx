import { CellsField } from "../parts/CellsField";
import { AreaField, NumberField } from "../parts/Field";
import { KeptPhotoField } from "../outbox/photos";
import { Alike } from "./Alike";
import { Clock } from "./Clock";
import { DefectFields } from "./DefectFields";
import { DrillPicture } from "./DrillPicture";
import { KnownWords } from "./KnownWords";
import { Marks } from "./Marks";
import type { Item, Value } from "./model";
import { OneOf } from "./OneOf";
import { capital } from "../parts/text";
import { memberOf, unitOf, warned, type Typed } from "./typed";
import { Votes } from "./Votes";

export interface EntryProps {
  item: Item;
  typed: Typed;
  sentence?: string;
  /** Something is known already: no field takes the focus. */
  calm?: boolean;
  change: (part: Partial<Typed>) => void;
  onRaise: () => void;
  /** Enters what one press says whole. */
  onEnter: (value: Value) => void;
}

/** The entry of one item: words of a defect, a number, or one number for each of several things. */
export function EntryFields(p: EntryProps) {
  const { item, typed, sentence, calm, change } = p;
  const defect = typed.look === "defect" || typed.wrong.length > 0;
  if (typed.look === "skip")
    return (
      <AreaField
        label="Why it is left out"
        value={typed.note}
        autoFocus
        onChange={(e) => change({ note: e.target.value })}
      />
    );
  switch (item.kind) {
    case "look":
    case "group":
      return (
        <>
          {item.known && <KnownWords item={item} />}
          {item.kind === "group" && <Marks item={item} typed={typed} change={change} />}
          {defect ? <DefectFields {...p} /> : warned(item) && <SeenField {...p} />}
        </>
      );
    case "alike":
      return (
        <>
          <Alike {...p} />
          {defect && <DefectFields {...p} />}
        </>
      );
    case "timer":
      return (
        <>
          <Clock item={item} typed={typed} change={change} />
          {defect && <DefectFields {...p} />}
        </>
      );
    case "drill":
      return <DrillPicture drawing={item.drawing ?? ""} />;
    case "computed":
      return (
        <>
          <KnownWords item={item} />
          {(defect || warned(item)) && <SeenField {...p} />}
        </>
      );
    case "poll":
      return <Votes item={item} typed={typed} change={change} />;
    case "who":
      return (
        <OneOf
          label={item.title}
          options={(item.names ?? []).map((n) => ({ key: n, title: n }))}
          chosen={typed.choice}
          onChoose={(choice) => p.onEnter({ choice })}
        />
      );
    case "photo":
      return <KeptPhotoField photos={typed.photos} onChange={(photos) => change({ photos })} />;
    case "choice":
      return (
        <OneOf
          label={item.title}
          options={item.options ?? []}
          chosen={typed.choice}
          onChoose={(choice) => change({ choice })}
        />
      );
    case "count":
    case "reading":
      return (
        <>
          <NumberField
            label={item.kind === "count" ? "How many there are" : capital(item.quantity)}
            unit={item.kind === "count" ? `of ${item.expect}` : unitOf(item)}
            autoFocus={!calm}
            value={typed.number}
            onChange={(e) => change({ number: e.target.value })}
            hint={
              item.kind === "count"
                ? undefined
                : `The field takes ${item.min} to ${item.max} ${unitOf(item)}.`
            }
            wrong={typed.number && sentence ? sentence : undefined}
          />
          {warned(item) && !calm && (
            <>
              <KnownWords item={item} />
              <SeenField {...p} />
            </>
          )}
        </>
      );
    default:
      return (
        <CellsField
          label={
            item.kind === "cells"
              ? "Every cell"
              : item.per === "heading"
                ? "Heading shown with the nose to the"
                : `${capital(item.quantity)} of each ${item.per ?? "motor"}`
          }
          unit={item.kind === "cells" ? "mV or V" : unitOf(item)}
          name={item.kind === "cells" ? undefined : (i) => memberOf(item, i)}
          count={item.count ?? 0}
          values={typed.set}
          autoFocus={!calm}
          onChange={(set) => change({ set })}
          wrong={typed.set.length ? sentence : undefined}
        />
      );
  }
}

/** What was seen, in words, where it is not in order. */
function SeenField({ typed, change }: EntryProps) {
  return (
    <AreaField label="What you saw" value={typed.note} onChange={(e) => change({ note: e.target.value })} />
  );
}

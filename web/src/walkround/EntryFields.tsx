import { Button } from "react-bootstrap";
import { KeptPhotoField } from "../outbox/photos";
import { CellsField } from "../parts/CellsField";
import { AreaField, NumberField } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { Clock } from "./Clock";
import { Marks } from "./Marks";
import type { Item } from "./model";
import { unitOf, type Typed } from "./typed";

interface Props {
  item: Item;
  typed: Typed;
  sentence?: string;
  /** Something is known already: no field takes the focus. */
  calm?: boolean;
  change: (part: Partial<Typed>) => void;
  onRaise: () => void;
}

/** The entry of one item: words of a defect, a number, or one number for each cell or motor. */
export function EntryFields({ item, typed, sentence, calm, change, onRaise }: Props) {
  const defect = typed.look === "defect" || typed.wrong.length > 0;
  switch (item.kind) {
    case "look":
    case "group":
    case "alike":
    case "timer":
      return (
        <>
          {(item.kind === "group" || item.kind === "alike") && (
            <Marks item={item} typed={typed} change={change} />
          )}
          {item.kind === "timer" && <Clock item={item} typed={typed} change={change} />}
          {item.kind === "alike" && item.compare && (
            <Fold summary={`${cap(item.quantity)} of each motor, where it shows it`}>
              <CellsField
                label={`${cap(item.quantity)} of each motor`}
                unit={unitOf(item)}
                name={(i) => `Motor ${i + 1}`}
                count={item.count ?? 0}
                values={typed.set}
                onChange={(set) => change({ set })}
                wrong={typed.set.length ? sentence : undefined}
              />
            </Fold>
          )}
          {defect && (
            <>
              <AreaField
                label="What the defect is"
                value={typed.note}
                autoFocus
                onChange={(e) => change({ note: e.target.value })}
              />
              <KeptPhotoField photos={typed.photos} onChange={(photos) => change({ photos })} />
              <Button type="button" variant="outline-danger" className="mb-3" onClick={onRaise}>
                Raise it as a defect of the aircraft too
              </Button>
            </>
          )}
        </>
      );
    case "photo":
      return <KeptPhotoField photos={typed.photos} onChange={(photos) => change({ photos })} />;
    case "choice":
      return (
        <div className="marks" role="radiogroup" aria-label={item.title}>
          {(item.options ?? []).map((o) => (
            <button
              key={o.key}
              type="button"
              role="radio"
              aria-checked={typed.choice === o.key}
              className={typed.choice === o.key ? "mark chosen" : "mark"}
              onClick={() => change({ choice: o.key })}
            >
              {o.title}
            </button>
          ))}
        </div>
      );
    case "reading":
      return (
        <NumberField
          label={cap(item.quantity)}
          unit={unitOf(item)}
          autoFocus={!calm}
          value={typed.number}
          onChange={(e) => change({ number: e.target.value })}
          hint={`The field takes ${item.min} to ${item.max} ${unitOf(item)}.`}
          wrong={typed.number && sentence ? sentence : undefined}
        />
      );
    default:
      return (
        <CellsField
          label={item.kind === "cells" ? "Every cell" : `${cap(item.quantity)} of each motor`}
          unit={item.kind === "cells" ? "mV or V" : unitOf(item)}
          name={item.kind === "cells" ? undefined : (i) => `Motor ${i + 1}`}
          count={item.count ?? 0}
          values={typed.set}
          autoFocus={!calm}
          onChange={(set) => change({ set })}
          wrong={typed.set.length ? sentence : undefined}
        />
      );
  }
}

function cap(s = ""): string {
  return s.charAt(0).toUpperCase() + s.slice(1);
}

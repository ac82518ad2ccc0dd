import { Button } from "react-bootstrap";
import { KeptPhotoField } from "../outbox/photos";
import { CellsField } from "../parts/CellsField";
import { AreaField, NumberField } from "../parts/Field";
import { unitOf, type Item, type Typed } from "./model";

interface Props {
  item: Item;
  typed: Typed;
  sentence?: string;
  change: (part: Partial<Typed>) => void;
  onRaise: () => void;
}

/** The entry of one item: words of a defect, a number, or one number for each cell or motor. */
export function EntryFields({ item, typed, sentence, change, onRaise }: Props) {
  switch (item.kind) {
    case "look":
      if (typed.look !== "defect") return null;
      return (
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
      );
    case "reading":
      return (
        <NumberField
          label={cap(item.quantity)}
          unit={unitOf(item)}
          autoFocus
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
          autoFocus
          onChange={(set) => change({ set })}
          wrong={typed.set.length ? sentence : undefined}
        />
      );
  }
}

function cap(s = ""): string {
  return s.charAt(0).toUpperCase() + s.slice(1);
}

import { Button } from "react-bootstrap";
import type { Item } from "./model";
import { byOnePress, toldByPress, type Typed } from "./typed";

interface Props {
  item: Item;
  typed: Typed;
  /** One press says that all of it is in order. */
  clear: boolean;
  /** What is known already stands until something is typed. */
  known: boolean;
  noted: boolean;
  readOnly: boolean;
  change: (part: Partial<Typed>) => void;
  onBack?: () => void;
}

const allWell = (item: Item) =>
  item.kind === "alike"
    ? "All alike, next"
    : item.kind === "computed" && item.known
      ? "Still so, next"
      : "In order, next";

const bad = (item: Item) =>
  item.kind === "drill" ? "Damage" : item.kind === "computed" && item.known ? "Not so" : "Defect";

/** The keys of an item, under the thumb. */
export function ItemKeys({ item, typed, clear, known, noted, readOnly, change, onBack }: Props) {
  const off = typed.look === "defect" || typed.look === "skip";
  const leaves = !item.bars && typed.look === "";
  return (
    <div className="keys d-flex gap-2">
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
      {leaves && (
        <Button
          type="button"
          variant="outline-primary"
          className="btn-big"
          disabled={readOnly}
          onClick={() => change({ look: "skip" })}
        >
          Leave out
        </Button>
      )}
      {(toldByPress(item) || off) && (
        <Button
          type="button"
          variant={off ? "outline-primary" : "outline-danger"}
          className="btn-big"
          disabled={readOnly}
          aria-pressed={typed.look === "defect"}
          onClick={() => change(off ? { look: "", wrong: [] } : { look: "defect" })}
        >
          {typed.look === "skip" ? "Look at it" : off ? `No ${bad(item).toLowerCase()}` : bad(item)}
        </Button>
      )}
      <Button type="submit" className="btn-big" disabled={readOnly} autoFocus={byOnePress(item) || known}>
        {noted ? "Noted ✓" : clear ? allWell(item) : known ? "Still so, next" : "Save, next"}
      </Button>
    </div>
  );
}

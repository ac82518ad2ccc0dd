import { Button } from "react-bootstrap";
import type { Item } from "./model";
import { byOnePress, type Typed } from "./typed";

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

const allWell = (item: Item) => (item.kind === "alike" ? "All alike, next" : "In order, next");

/** The keys of an item, under the thumb. */
export function ItemKeys({ item, typed, clear, known, noted, readOnly, change, onBack }: Props) {
  return (
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
      {(byOnePress(item) || item.kind === "timer") && (
        <Button
          type="button"
          variant={typed.look === "defect" ? "outline-primary" : "outline-danger"}
          className="btn-big"
          disabled={readOnly}
          aria-pressed={typed.look === "defect"}
          onClick={() => change(typed.look === "defect" ? { look: "", wrong: [] } : { look: "defect" })}
        >
          {typed.look === "defect" ? "No defect" : "Defect"}
        </Button>
      )}
      <Button type="submit" className="btn-big" disabled={readOnly} autoFocus={byOnePress(item) || known}>
        {noted ? "Noted ✓" : clear ? allWell(item) : known ? "Still so, next" : "Save, next"}
      </Button>
    </div>
  );
}

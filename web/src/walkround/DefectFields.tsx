import { Button } from "react-bootstrap";
import { KeptPhotoField } from "../outbox/photos";
import { AreaField } from "../parts/Field";
import type { EntryProps } from "./EntryFields";

/** What a defect is, in words and pictures. */
export function DefectFields({ typed, change, onRaise }: EntryProps) {
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
}

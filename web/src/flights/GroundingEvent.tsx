import { useState } from "react";
import { Button } from "react-bootstrap";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { eventWords, type EventKind } from "./model";

interface Props {
  kind: EventKind | null;
  onClose: () => void;
  onLog: (kind: EventKind, note: string) => void;
}

/** A contact or a hard landing grounds the aircraft: asked first, with a word on what happened. */
export function GroundingEvent({ kind, onClose, onLog }: Props) {
  const [note, setNote] = useState("");
  return (
    <Dialog title={kind ? eventWords[kind] : ""} open={kind !== null} onClose={onClose}>
      <p>
        {kind === "contact"
          ? "Contact with something hard grounds the aircraft until every propeller is replaced, even one that looks fine."
          : "A hard landing grounds the aircraft until a technician or chief has inspected it."}
      </p>
      <AreaField
        label="What happened"
        value={note}
        onChange={(e) => setNote(e.target.value)}
        maxLength={500}
      />
      <Button
        variant="danger"
        className="w-100"
        onClick={() => {
          if (!kind) return;
          onLog(kind, note);
          setNote("");
        }}
      >
        Log it and ground the aircraft
      </Button>
    </Dialog>
  );
}

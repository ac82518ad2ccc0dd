import { useMovePack } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { ProblemError, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { DisposePack } from "./DisposePack";

type Pack = Schemas["Pack"];

export const moveWords: Record<Pack["state"], string> = {
  storage: "At storage level",
  charging: "Put on charge",
  charged: "Charged",
  fitted: "Fitted",
  hot: "Hot",
  flown: "Cooled down",
  quarantine: "Quarantine",
  retired: "Retire",
};

/** The state of a pack, and the states it may go to. */
export function Moves({ p }: { p: Pack }) {
  const movePack = useMovePack();
  const z = useZone();
  const [error, setError] = useState<unknown>();
  const [asking, setAsking] = useState<Pack["state"] | null>(null);
  const [note, setNote] = useState("");
  const [disposing, setDisposing] = useState(false);
  const may = useMay();
  const move = async (state: Pack["state"]) => {
    setError(undefined);
    try {
      await movePack.mutateAsync({ id: p.id, body: { state, note, version: p.version } });
      setAsking(null);
    } catch (e) {
      setError(e);
    }
  };
  const needsNote = (s: Pack["state"]) => s === "quarantine" || s === "retired" || p.state === "quarantine";
  return (
    <Sheet title={`Now: ${p.state}`} aside={<span className="soft fig">since {z.both(p.state_since)}</span>}>
      {p.fitted_to && <p>Fitted to {p.fitted_to}.</p>}
      {error !== undefined && asking === null && <Problem error={error} />}
      <div className="d-flex flex-wrap gap-2">
        {p.moves.map((s) => (
          <Button
            key={s}
            variant={s === "quarantine" ? "outline-danger" : "outline-primary"}
            onClick={() => (needsNote(s) ? setAsking(s) : void move(s))}
          >
            {moveWords[s]}
          </Button>
        ))}
        {p.state === "quarantine" && may("technician") && (
          <Button variant="outline-danger" onClick={() => setDisposing(true)}>
            Dispose of it
          </Button>
        )}
        {p.moves.length === 0 && <span className="soft">This is its last state.</span>}
      </div>
      {disposing && <DisposePack p={p} onClose={() => setDisposing(false)} />}
      <Dialog
        title={`${p.label}: ${asking ? moveWords[asking] : ""}`}
        open={asking !== null}
        onClose={() => setAsking(null)}
      >
        {error !== undefined && !(error instanceof ProblemError && error.fields.length > 0) && (
          <Problem error={error} />
        )}
        <AreaField
          label="Why: what was seen or measured"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          wrong={
            error instanceof ProblemError ? error.fields.find((x) => x.field === "note")?.sentence : undefined
          }
        />
        <Button
          className="w-100"
          variant={asking === "quarantine" ? "danger" : "primary"}
          onClick={() => asking && void move(asking)}
        >
          Put on record
        </Button>
      </Dialog>
    </Sheet>
  );
}

import { useState } from "react";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { counted } from "../parts/number";
import { Problem } from "../parts/states";
import { useMovePacks, useMovePacksBack, type Outcome } from "./api";
import { commonMoves, summary } from "./model";
import { moveWords } from "./Moves";
import { Thumb } from "../parts/Thumb";

export interface SeveralProps {
  chosen: Schemas["Pack"][];
  onDone: () => void;
}

/** One act for all packs that are chosen, what became of each, and the way back. */
export function Several({ chosen, onDone }: SeveralProps) {
  const move = useMovePacks();
  const back = useMovePacksBack();
  const [done, setDone] = useState<Outcome[]>([]);
  const said = summary(done);
  const act = (state: Schemas["PackState"]) =>
    move.mutate(
      { state, packs: chosen.map((p) => ({ id: p.id, version: p.version })) },
      { onSuccess: (r) => setDone(r.packs) },
    );
  const takeBack = () =>
    back.mutate(
      {
        packs: said.moved.map((o) => ({ id: o.id, version: o.version })),
      },
      { onSuccess: () => setDone([]) },
    );
  const moves = commonMoves(chosen);
  return (
    <Thumb>
      {(move.error ?? back.error) && <Problem error={move.error ?? back.error} />}
      {said.refused.map((s) => (
        <div key={s} className="judged stop" role="alert">
          {s}
        </div>
      ))}
      {said.moved.length > 0 && (
        <div className="keys d-flex gap-2 align-items-center" role="status">
          <span className="flex-grow-1">{said.words}</span>
          <Button variant="outline-primary" className="narrow" disabled={back.isPending} onClick={takeBack}>
            {back.isPending ? "Taking back…" : "Take back"}
          </Button>
        </div>
      )}
      <div className="keys d-flex gap-2 align-items-center flex-wrap">
        <span className="flex-fill">{counted(chosen.length, "pack")} chosen</span>
        <Button className="narrow" onClick={onDone}>
          Done
        </Button>
        {moves.map((s) => (
          <Button
            key={s}
            variant="outline-primary"
            className="flex-fill"
            disabled={move.isPending}
            onClick={() => act(s)}
          >
            {moveWords[s]}
          </Button>
        ))}
        {chosen.length > 1 && moves.length === 0 && (
          <span className="soft">There is no state that all of them may go to.</span>
        )}
      </div>
    </Thumb>
  );
}

import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { counted } from "../parts/number";
import { Problem } from "../parts/states";
import { useCancelOrders, useOpenOrders } from "./api";
import { openedWords, type Opened, type Wanted } from "./model";
import { Thumb } from "../parts/Thumb";

/** What is chosen in a list, while somebody chooses. */
export interface Choice {
  keys: string[] | undefined;
  begin: () => void;
  flip: (key: string) => void;
  all: (keys: string[]) => void;
  end: () => void;
}

export function useChoice(): Choice {
  const [keys, set] = useState<string[]>();
  return {
    keys,
    begin: () => set([]),
    flip: (k) => set((c) => (c?.includes(k) ? c.filter((x) => x !== k) : [...(c ?? []), k])),
    all: set,
    end: () => set(undefined),
  };
}

/** The keys beside a list's search: begin to choose, or take all that are shown. */
export function ChoiceKeys({ choice, wanted }: { choice: Choice; wanted: Wanted[] }) {
  if (wanted.length < 2 && !choice.keys) return null;
  return choice.keys ? (
    <Button variant="outline-primary" onClick={() => choice.all(wanted.map((w) => w.key))}>
      All that are shown
    </Button>
  ) : (
    <Button variant="outline-primary" onClick={choice.begin}>
      Choose several
    </Button>
  );
}

/** The box at a line that can be chosen. */
export function ChoiceBox({ choice, w }: { choice: Choice; w?: Wanted }) {
  if (!choice.keys || !w) return null;
  return (
    <label className="tap d-inline-flex align-items-center px-2">
      <Form.Check.Input
        className="m-0"
        aria-label={`Choose ${w.name}`}
        checked={choice.keys.includes(w.key)}
        onChange={() => choice.flip(w.key)}
      />
    </label>
  );
}

/** One act for all that are chosen: work orders, what became of each, and the way back. */
export function Several({ choice, wanted }: { choice: Choice; wanted: Wanted[] }) {
  const open = useOpenOrders();
  const cancel = useCancelOrders();
  const [done, setDone] = useState<Opened[]>([]);
  if (!choice.keys) return null;
  const chosen = wanted.filter((w) => choice.keys?.includes(w.key));
  const said = openedWords(done);
  return (
    <Thumb>
      {(open.error ?? cancel.error) && <Problem error={open.error ?? cancel.error} />}
      {said.refused.map((s) => (
        <div key={s} className="judged stop" role="alert">
          {s}
        </div>
      ))}
      {said.done && (
        <div className="keys d-flex gap-2 align-items-center" role="status">
          <span className="flex-grow-1">{said.done}</span>
          <Button
            variant="outline-primary"
            className="narrow"
            disabled={cancel.isPending}
            onClick={() => cancel.mutate(said.orders, { onSuccess: () => setDone([]) })}
          >
            {cancel.isPending ? "Taking back…" : "Take back"}
          </Button>
        </div>
      )}
      <div className="keys d-flex gap-2 align-items-center flex-wrap">
        <span className="flex-fill">
          {chosen.length === 0 ? "Nothing chosen yet" : `${counted(chosen.length, "line")} chosen`}
        </span>
        <Button className="narrow" onClick={choice.end}>
          Done
        </Button>
        <Button
          variant="outline-primary"
          className="flex-fill"
          disabled={open.isPending || chosen.length === 0}
          onClick={() =>
            open.mutate(chosen, {
              onSuccess: (r) => {
                setDone(r);
                choice.all([]);
              },
            })
          }
        >
          {open.isPending ? "Opening…" : "Open a work order for each"}
        </Button>
      </div>
    </Thumb>
  );
}

import { Button } from "react-bootstrap";
import { useNow } from "../parts/time";
import type { Item } from "./model";
import type { Typed } from "./typed";

interface Props {
  item: Item;
  typed: Typed;
  change: (part: Partial<Typed>) => void;
}

/** The running time of an item that takes one. */
export function Clock({ item, typed, change }: Props) {
  useNow(); // once a second
  const least = item.least_s ?? 0;
  if (!typed.began)
    return (
      <Button type="button" className="btn-big w-100 mb-3" onClick={() => change({ began: Date.now() })}>
        Start the time
      </Button>
    );
  const ran = Math.floor((Date.now() - typed.began) / 1000);
  return (
    <div
      className="timer mb-3"
      style={{ fontSize: "clamp(3rem, 10vw, 5rem)" }}
      role="timer"
      aria-label="Time that it has run"
    >
      {Math.floor(ran / 60)}:{String(ran % 60).padStart(2, "0")}
      <small className="soft d-block fs-3">
        {ran < least ? `at least ${least} s: ${least - ran} s to go` : `at least ${least} s: long enough`}
      </small>
    </div>
  );
}

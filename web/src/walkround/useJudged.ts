import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ProblemError, type Schemas } from "../api/client";
import { judgeHere, useJudge, type Answer } from "../judge/judge";
import { judgeThere } from "./api";
import { byOnePress } from "./typed";
import { packOf, type Item, type RunSeen, type Value } from "./model";

/** How long after an item was shown it is worked out that it is in order, in ms. */
const whileRead = 50;

/** How long typing may pause before the server is asked, in ms. */
const pause = 180;

/**
 * What it means that an item is in order, worked out while the item is read, so that
 * the press need not wait for it.
 */
export function useInOrder(item: Item): () => Schemas["Judgement"] | undefined {
  const here = useJudge();
  const known = useRef<{ item: Item; judgement?: Schemas["Judgement"] }>(undefined);
  const judge = useCallback(() => {
    if (known.current?.item !== item || !known.current.judgement)
      known.current = { item, judgement: judgeHere({ item, value: { look: "ok" } })?.judgement };
    return known.current.judgement;
  }, [item]);
  useEffect(() => {
    if (!here || !byOnePress(item)) return;
    const idle = setTimeout(judge, whileRead);
    return () => clearTimeout(idle);
  }, [here, item, judge]);
  return judge;
}

/**
 * What an entry means, while it is typed: at once on this device, by the code
 * the server judges with; by the server where this device cannot.
 */
export function useJudged(run: RunSeen, item: Item, value: Value | undefined, known?: Schemas["Judgement"]) {
  const here = useJudge();
  const shape = value && JSON.stringify(value);
  const own = useMemo<Answer | undefined>(
    () =>
      here && shape
        ? judgeHere({ item, value: JSON.parse(shape) as Value, pack: packOf(run, item) })
        : undefined,
    [here, shape, item, run],
  );
  const [there, setThere] = useState<Answer & { shape?: string }>({});
  useEffect(() => {
    if (!shape || own) return;
    const timer = setTimeout(() => {
      judgeThere(run.id, item.id, JSON.parse(shape) as Value)
        .then((judgement) => setThere({ judgement, shape }))
        .catch((e: unknown) => {
          if (e instanceof ProblemError && e.type !== "unreachable") setThere({ sentence: e.message, shape });
        });
    }, pause);
    return () => clearTimeout(timer);
  }, [shape, own, run.id, item.id]);
  if (!shape) return {};
  return own ?? (there.shape === shape ? there : { judgement: known });
}

/** What an entry means that is made with this press, where this device can tell. */
export function judgeNow(run: RunSeen, item: Item, value: Value): Answer | undefined {
  return judgeHere({ item, value, pack: packOf(run, item) });
}

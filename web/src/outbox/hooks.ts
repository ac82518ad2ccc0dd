import { useCallback, useMemo, useSyncExternalStore } from "react";
import { newId } from "../api/client";
import { useSession } from "../parts/session";
import { about, orderAfter, type About, type Press } from "./model";
import { onPresses, presses, put } from "./store";

/** All presses of this device. */
export function usePresses(): Press[] {
  return useSyncExternalStore(onPresses, presses);
}

/** What this device keeps about one thing. */
export function useAbout(thing: string): About {
  const all = usePresses();
  const { person } = useSession();
  return useMemo(() => about(all, thing, person.id), [all, thing, person.id]);
}

/** Makes a press: it shows at once, is kept, and is sent when the server is there. */
export function usePress(): <B>(
  kind: string,
  thing: string,
  body: B,
  more?: Partial<Press<B>>,
  show?: (tell: () => void) => void,
) => Press<B> {
  const { person } = useSession();
  return useCallback(
    (kind, thing, body, more, show) => {
      const at = Date.now();
      const p = {
        id: newId(),
        person: person.id,
        personName: person.name,
        kind,
        thing,
        at,
        order: orderAfter(presses(), at),
        body,
        ...more,
      };
      void put(p, show);
      return p;
    },
    [person],
  );
}

import type { QueryClient } from "@tanstack/react-query";
import { linked, onLink } from "../api/link";
import { kindOf } from "./kinds";
import { ago, breaks, nextToSend, outcome, type Press } from "./model";
import { drop, load, onPresses, presses, put } from "./store";

/** After a server that cannot just now, in ms: how long before the next try. */
const patience = 2000;

/** How long an answer to a press is waited for, in ms; a line that is dead would keep it for minutes. */
const answerTakes = 15_000;

/** The frame that shows a press comes first, in ms; then it is sent. */
const afterFrame = 40;

/** Sends one press; reports whether the next may follow. */
async function sendOne(p: Press, qc: QueryClient, stop: AbortSignal): Promise<boolean> {
  const kind = kindOf(p);
  try {
    if (!kind) throw new Error("unknown");
    const signal = AbortSignal.any([stop, AbortSignal.timeout(kind.takes ?? answerTakes)]);
    const header = { "Press-Id": p.id, "Press-Ago": ago(p, Date.now()), "Press-By": p.person };
    await kind.send(p, { header, signal }, qc);
    void drop(p.id);
    return true;
  } catch (e) {
    const o = outcome(e, p.broke);
    if (o !== "wait") {
      void put({ ...p, refused: o });
      return true;
    }
    if (breaks(e)) void put({ ...p, broke: (p.broke ?? 0) + 1 });
    return false;
  }
}

/** One tab of a device sends; where the browser has no locks the server takes each press once all the same. */
async function alone(run: () => Promise<void>): Promise<void> {
  if (!navigator.locks) return run();
  await navigator.locks.request("mainstay-outbox", { ifAvailable: true }, async (lock) => {
    if (lock) await run();
  });
}

/** Sends what this person pressed, in order, whenever the server is there, until stopped. */
export function sendFor(person: string, qc: QueryClient): () => void {
  let stopped = false;
  let busy = false;
  let later: ReturnType<typeof setTimeout> | undefined;
  let under = new AbortController(); // what is on its way ends when the connection is lost
  const pump = async () => {
    if (busy || stopped || !linked() || !nextToSend(presses(), person)) return;
    busy = true;
    clearTimeout(later);
    let again = false;
    await alone(async () => {
      for (;;) {
        const p = stopped || !linked() ? undefined : nextToSend(presses(), person);
        if (!p) return;
        if (!(await sendOne(p, qc, under.signal))) {
          again = true;
          return;
        }
      }
    }).catch(() => (again = true));
    busy = false;
    // Another tab may hold the lock, or the server was busy: look again in a while.
    if (!stopped && (again || nextToSend(presses(), person))) later = setTimeout(() => void pump(), patience);
  };
  const stopLink = onLink(() => {
    if (!linked()) {
      under.abort();
      under = new AbortController();
    }
    void pump();
  });
  const stopPresses = onPresses(() => setTimeout(() => void pump(), afterFrame));
  void load().then(pump);
  return () => {
    stopped = true;
    clearTimeout(later);
    stopLink();
    stopPresses();
  };
}

import { shelve, shelved, unshelve } from "../api/device";
import { inOrder, type Press } from "./model";

let all: Press[] = [];
let durable = true;
const told = new Set<() => void>();
const other = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("mainstay-outbox");

function tell() {
  told.forEach((f) => f());
}

/** All presses that this device keeps, oldest first. */
export function presses(): Press[] {
  return all;
}

/** Whether they outlive the page; without storage they last as long as it is open. */
export function isDurable(): boolean {
  return durable;
}

export function onPresses(f: () => void): () => void {
  told.add(f);
  return () => told.delete(f);
}

/** Reads what was kept; presses made meanwhile stay. */
export async function load(): Promise<void> {
  try {
    const kept = await shelved<Press>("presses");
    // What this page has changed since stands as it is here, whatever the shelf still says.
    const here = all.filter((p) => unsaved.has(p.id));
    all = inOrder([...kept.filter((p) => !unsaved.has(p.id) && !gone.has(p.id)), ...here]);
  } catch {
    durable = false;
  }
  tell();
}

/** Presses that are being written, and such that this page has forgotten. */
const unsaved = new Set<string>();
const gone = new Set<string>();

/**
 * Keeps a press and shows it, at once or when show says so; a change of one that is kept
 * replaces it.
 */
export function put(p: Press, show: (tell: () => void) => void = (tell) => tell()): Promise<void> {
  all = inOrder([...all.filter((x) => x.id !== p.id), p]);
  unsaved.add(p.id);
  gone.delete(p.id);
  const written = shelve("presses", p);
  show(tell);
  return written
    .then(() => other?.postMessage(1))
    .then(() => unsaved.delete(p.id))
    .then(() => undefined)
    .catch(() => {
      durable = false; // it stays in this page, and is said to last no longer
      tell();
    });
}

/** Forgets presses: the server has taken them, or their maker gave them up. */
export function drop(...ids: string[]): Promise<unknown> {
  all = all.filter((p) => !ids.includes(p.id));
  ids.forEach((id) => {
    gone.add(id);
    unsaved.delete(id);
  });
  tell();
  return Promise.all(ids.map((id) => unshelve("presses", id)))
    .then(() => other?.postMessage(1))
    .catch(() => undefined);
}

if (other) other.onmessage = () => void load();

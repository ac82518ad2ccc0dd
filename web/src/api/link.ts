import { useSyncExternalStore } from "react";

/** How long the server may be silent, while it is listened to, before it counts as gone, in ms. */
export const silentFor = 1600;

/** How long a page without its stream waits before it asks, in ms; with the patience of asking it is two seconds. */
const askAfter = 800;
const askFor = 1200;

interface Link {
  up: boolean;
  /** Since when it is so, by this device's clock. */
  since: number;
}

let link: Link = { up: true, since: Date.now() };
let last = Date.now();
let listening = false;
let watched = false; // a page has a stream, or is waiting for one
const told = new Set<() => void>();

function set(up: boolean) {
  if (link.up === up) return;
  link = { up, since: Date.now() };
  told.forEach((f) => f());
}

/** The server was heard. */
export function heard() {
  last = Date.now();
  set(true);
}

/** It was not: a request got no answer, or the browser says that there is no network. */
export function missed() {
  set(false);
}

/** Whether the stream of the server is open, so that its silence means something. */
export function listens(on: boolean) {
  listening = on;
  watched = true;
  last = Date.now();
}

/** Nothing is listened to any more: nobody is signed in. */
export function deaf() {
  listening = watched = false;
}

let asking = false;
/** Asks the server whether it is there. */
export async function probe() {
  if (asking) return;
  asking = true;
  try {
    const r = await fetch("/healthz", { cache: "no-store", signal: AbortSignal.timeout(askFor) });
    if ((await r.text()) === "ok") heard();
    else missed(); // something else answers: a sign-in page of the network
  } catch {
    missed();
  } finally {
    asking = false;
  }
}

/** Watches the connection, from the start of the page to its end. */
export function watchLink() {
  if (!navigator.onLine) missed();
  window.addEventListener("offline", missed);
  window.addEventListener("online", () => void probe());
  document.addEventListener("visibilitychange", () => {
    last = Date.now();
    if (!document.hidden) void probe();
  });
  setInterval(() => {
    if (document.hidden) return;
    const silent = Date.now() - last;
    if (!link.up) void probe();
    else if (listening && silent > silentFor) missed();
    else if (watched && !listening && silent > askAfter) void probe(); // the stream is away: is the server?
  }, 300);
}

export function linked(): boolean {
  return link.up;
}

export function onLink(f: () => void): () => void {
  told.add(f);
  return () => told.delete(f);
}

/** The truth about the connection, at most two seconds old. */
export function useLink(): Link {
  return useSyncExternalStore(onLink, () => link);
}

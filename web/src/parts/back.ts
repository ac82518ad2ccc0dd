import { useSyncExternalStore } from "react";

/** A page somebody left to do something first, and its name: "the gate of Dray One". */
export interface Back {
  to: string;
  name: string;
}

const key = "mainstay.back";
let back: Back | undefined;
try {
  back = JSON.parse(sessionStorage.getItem(key) ?? "null") ?? undefined;
} catch {
  /* without storage it lasts as long as the page */
}
const told = new Set<() => void>();

function set(b: Back | undefined) {
  back = b;
  try {
    if (b) sessionStorage.setItem(key, JSON.stringify(b));
    else sessionStorage.removeItem(key);
  } catch {
    /* as above */
  }
  told.forEach((f) => f());
}

/** Remembers where to lead back to. */
export function comeBack(b: Back) {
  set(b);
}

/** Forgets it: the page was reached, or somebody went another way. */
export function forgetBack() {
  if (back) set(undefined);
}

export function useBack(): Back | undefined {
  return useSyncExternalStore(
    (f) => {
      told.add(f);
      return () => told.delete(f);
    },
    () => back,
  );
}

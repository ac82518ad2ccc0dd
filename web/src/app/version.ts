import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import { inHand } from "./inhand";
import { registerSW } from "virtual:pwa-register";
import { usePresses } from "../outbox/hooks";

/** How often a newer version is looked for, in ms. */
const lookEvery = 3600_000;

/** How often a version that waits asks for its turn, in ms. */
const askAgain = 1_000;

let waiting = false;
let taken = false; // the newer program answers already; only this page is the older one
let change: ((reload?: boolean) => Promise<void>) | undefined;
const told = new Set<() => void>();

/** Keeps the program on this device, so that it opens without network. */
export function keepProgram() {
  if (!("serviceWorker" in navigator)) return; // a plain address: it works as long as the page is open
  change = registerSW({
    onRegisteredSW(_address, worker) {
      // A tablet may stay on one page for days.
      setInterval(() => void worker?.update().catch(() => undefined), lookEvery);
    },
    onNeedReload() {
      taken = true; // never in the middle of a walk: the page is changed where it is left
    },
    onNeedRefresh() {
      waiting = true;
      told.forEach((f) => f());
    },
  });
}

/** A newer version waits until no flight, walk or gate is open and nothing waits to be sent; then it comes by itself. */
export function useVersion(): boolean {
  const qc = useQueryClient();
  const [newer, setNewer] = useState(waiting);
  const { pathname } = useLocation();
  const idle = usePresses().length === 0 && !inHand(pathname);
  useEffect(() => {
    const hear = () => setNewer(true);
    told.add(hear);
    return () => {
      told.delete(hear);
    };
  }, []);
  useEffect(() => {
    if (!newer || !idle) return;
    // A worker that is asked while it carries requests of the page stays for minutes.
    const come = () => {
      if (qc.isFetching() > 0) return;
      if (document.querySelector(".modal.show, main form")) return; // what is typed is finished first
      if (taken) window.location.reload();
      else void change?.(true);
    };
    const again = setInterval(come, askAgain);
    return () => clearInterval(again);
  }, [newer, idle, pathname, qc]);
  return newer && !idle;
}

import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { deaf, heard, listens, probe } from "../api/link";
import { concerned, keysOf } from "../api/touched";

/** Listens to the server's stream of changes, so that what one person does is on every open screen at once. */
export function useChanges() {
  const qc = useQueryClient();
  useEffect(() => {
    const waiting = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let stream: EventSource | undefined;
    const hear = (e: MessageEvent<string>) => {
      heard();
      keysOf(e.data === "all" ? Object.keys(concerned) : [e.data]).forEach((k) => waiting.add(k));
      timer ??= setTimeout(() => {
        timer = undefined;
        const now = new Set(waiting);
        waiting.clear();
        void qc.invalidateQueries({ predicate: (q) => now.has(String(q.queryKey[0])) });
      }, 120);
    };
    const open = () => {
      stream ??= new EventSource("/api/v1/changes");
      stream.onmessage = hear;
      stream.onopen = () => listens(true);
      stream.addEventListener("beat", heard);
      stream.onerror = () => {
        listens(false); // it comes back by itself; whether the server is there is asked meanwhile
        void probe();
      };
    };
    // A page that the browser keeps for the way back must not keep its connection.
    const close = () => {
      deaf();
      stream?.close();
      stream = undefined;
    };
    open();
    window.addEventListener("pageshow", open);
    window.addEventListener("pagehide", close);
    return () => {
      window.removeEventListener("pageshow", open);
      window.removeEventListener("pagehide", close);
      clearTimeout(timer);
      close();
    };
  }, [qc]);
}

import { useSyncExternalStore } from "react";
import type { Schemas } from "../api/client";

/** An entry to judge: the item, what was entered, and the pack it belongs to. */
export interface Question {
  item: Schemas["Item"];
  value: Schemas["ItemValue"];
  pack?: { id: string; label: string; chemistry: string; cells: number };
}

/** What it means, or why it cannot be used. */
export interface Answer {
  judgement?: Schemas["Judgement"];
  sentence?: string;
  unable?: boolean;
}

interface GoProgram {
  importObject: WebAssembly.Imports;
  run: (i: WebAssembly.Instance) => Promise<void>;
}
declare global {
  var Go: (new () => GoProgram) | undefined;
  var mainstayJudge: ((question: string) => string) | undefined;
}

let ready = false;
let starting: Promise<void> | undefined;
const told = new Set<() => void>();

function script(src: string): Promise<void> {
  return new Promise((done, fail) => {
    const s = document.createElement("script");
    s.src = src;
    s.onload = () => done();
    s.onerror = () => fail(new Error("the judgement did not load"));
    document.head.append(s);
  });
}

async function start(): Promise<void> {
  await script("/judge/wasm_exec.js");
  const go = new globalThis.Go!();
  const { instance } = await WebAssembly.instantiateStreaming(fetch("/judge/judge.wasm"), go.importObject);
  const gone = () => {
    ready = false; // a judgement that broke down judges nothing; the server does
    told.forEach((f) => f());
  };
  void go.run(instance).then(gone, gone);
  globalThis.mainstayJudge?.("{}"); // the first call is slow; it is made now, and not under a press
  ready = globalThis.mainstayJudge !== undefined;
  told.forEach((f) => f());
}

/** Starts the judgement on this device, once; without it the server judges. */
export function startJudge() {
  starting ??= start().catch(() => {
    starting = undefined; // looked for again with the next walk
  });
}

/** Judges here, with the code the server judges with; nothing while it is not there. */
export function judgeHere(q: Question): Answer | undefined {
  if (!ready || !globalThis.mainstayJudge) return undefined;
  try {
    const a = JSON.parse(globalThis.mainstayJudge(JSON.stringify(q))) as Answer;
    return a.unable ? undefined : a;
  } catch {
    return undefined;
  }
}

/** Whether this device judges by itself. */
export function useJudge(): boolean {
  return useSyncExternalStore(
    (f) => {
      told.add(f);
      return () => told.delete(f);
    },
    () => ready,
  );
}

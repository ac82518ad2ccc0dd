import { dehydrate, hydrate, type DehydratedState, type QueryClient } from "@tanstack/react-query";
import { read, shelve, unshelve } from "../parts/device";

/** Answers that a page without network opens with: who is signed in, and the work in hand. */
const kept = new Set(["session", "flight", "walkround", "gate", "packs", "day"]);

/** How long an answer is worth showing without the server, in ms: a day in the field and the night after it. */
const keptFor = 36 * 3600_000;

/** Changes are gathered for so long before they are written, in ms. */
const pause = 700;

const shelf = "answers";

interface Kept {
  build: string;
  state: DehydratedState;
}

/** Brings back what was kept, unless another version of the program kept it. */
export async function bringBack(qc: QueryClient): Promise<void> {
  const k = await read<Kept>("kept", shelf).catch(() => undefined);
  if (!k || k.build !== __BUILD__) return;
  const since = Date.now() - keptFor;
  hydrate(qc, {
    ...k.state,
    queries: k.state.queries.filter((q) => q.state.dataUpdatedAt > since),
  });
}

/** Keeps them from now on, a moment after each change. */
export function keepAnswers(qc: QueryClient): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const write = () => {
    timer = undefined;
    const state = dehydrate(qc, {
      shouldDehydrateQuery: (q) =>
        q.state.status === "success" && q.state.data !== null && kept.has(String(q.queryKey[0])),
    });
    void shelve("kept", { build: __BUILD__, state } satisfies Kept, shelf).catch(() => undefined);
  };
  return qc.getQueryCache().subscribe((e) => {
    if (e.type !== "updated" || e.action.type !== "success" || !kept.has(String(e.query.queryKey[0]))) return;
    timer ??= setTimeout(write, pause);
  });
}

/** Forgets them: the next person sees nothing of this one. */
export async function forgetAnswers(): Promise<void> {
  await unshelve("kept", shelf).catch(() => undefined);
}

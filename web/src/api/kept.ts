import { hashKey, type QueryClient, type QueryKey } from "@tanstack/react-query";
import { clearShelf, shelve, shelved, unshelve } from "../parts/device";

/** Answers that a page without network opens with: who is signed in, and the work in hand. */
const kinds = new Set(["session", "flight", "walkround", "gate", "packs", "day"]);

/** How long an answer is worth showing without the server, in ms: a day in the field and the night after it. */
const keptFor = 36 * 3600_000;

/** Changes are gathered for so long before they are written, in ms. */
const pause = 700;

interface Kept {
  build: string;
  key: QueryKey;
  data: unknown;
  at: number;
}

/** Brings back what was kept, but what another version of the program kept, and what is too old. */
export async function bringBack(qc: QueryClient): Promise<void> {
  const all = await shelved<Kept>("kept").catch(() => []);
  const since = Date.now() - keptFor;
  for (const k of all) {
    if (k.build === __BUILD__ && k.at > since) qc.setQueryData(k.key, k.data, { updatedAt: k.at });
    else void unshelve("kept", hashKey(k.key)).catch(() => undefined);
  }
}

/** Keeps one answer as it is now; it is safe when this is done. */
export async function keepNow(qc: QueryClient, key: QueryKey): Promise<void> {
  const state = qc.getQueryState(key);
  if (!kinds.has(String(key[0])) || state?.data == null) return;
  const k: Kept = { build: __BUILD__, key, data: state.data, at: state.dataUpdatedAt };
  await shelve("kept", k, hashKey(key)).catch(() => undefined);
}

/** Keeps answers from now on, a moment after each change. */
export function keepAnswers(qc: QueryClient): () => void {
  const changed = new Map<string, QueryKey>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const write = () => {
    timer = undefined;
    changed.forEach((key) => void keepNow(qc, key));
    changed.clear();
  };
  return qc.getQueryCache().subscribe((e) => {
    if (e.type !== "updated" || e.action.type !== "success" || !kinds.has(String(e.query.queryKey[0])))
      return;
    changed.set(e.query.queryHash, e.query.queryKey);
    timer ??= setTimeout(write, pause);
  });
}

/** Forgets them: the next person sees nothing of this one. */
export async function forgetAnswers(): Promise<void> {
  await clearShelf("kept").catch(() => undefined);
}

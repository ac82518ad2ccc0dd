import { hashKey, type QueryClient, type QueryKey } from "@tanstack/react-query";
import { clearShelf, shelve, shelved, unshelve } from "./device";

/** Answers that a page without network opens with: who is signed in, and the work in hand. */
const kinds = new Set(["session", "flight", "walkround", "gate", "packs", "day", "spray", "spray-checks"]);

/** How long an answer is worth showing without the server, in ms: a day in the field and the night after it. */
const keptFor = 36 * 3600_000;

/** Changes are gathered for so long before they are written, in ms. */
const pause = 700;

/** Whose answers these are; kept apart, where it is known at once. */
const whose = "mainstay.person";

function owner(): string {
  try {
    return localStorage.getItem(whose) ?? "";
  } catch {
    return ""; // without storage nothing is brought back
  }
}

function setOwner(person: string) {
  try {
    localStorage.setItem(whose, person);
  } catch {
    /* as above */
  }
}

interface Kept {
  build: string;
  person: string;
  key: QueryKey;
  data: unknown;
  at: number;
}

/** Brings back what was kept for who is signed in here, but what another version of the program kept, and what is too old. */
export async function bringBack(qc: QueryClient): Promise<void> {
  const all = await shelved<Kept>("kept").catch(() => []);
  const since = Date.now() - keptFor;
  for (const k of all) {
    if (k.build === __BUILD__ && k.person !== "" && k.person === owner() && k.at > since) {
      // A slow shelf must not put an old answer over one that has come meanwhile.
      if ((qc.getQueryState(k.key)?.dataUpdatedAt ?? 0) < k.at)
        qc.setQueryData(k.key, k.data, { updatedAt: k.at });
    } else void unshelve("kept", hashKey(k.key)).catch(() => undefined);
  }
}

/** Keeps one answer as it is now; it is safe when this is done. */
export async function keepNow(qc: QueryClient, key: QueryKey): Promise<void> {
  const state = qc.getQueryState(key);
  if (!kinds.has(String(key[0])) || state?.data == null) return;
  const k: Kept = { build: __BUILD__, person: owner(), key, data: state.data, at: state.dataUpdatedAt };
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
    // Whoever signs in or out, in whichever way: the answers of the one before are nobody's from now on.
    if (e.type === "updated" && e.query.queryKey[0] === "session") {
      const person = (e.query.state.data as { person: { id: string } } | null | undefined)?.person.id;
      if (e.query.state.data !== undefined && (person ?? "") !== owner()) {
        setOwner(person ?? "");
        void clearShelf("kept").catch(() => undefined);
      }
    }
    if (e.type !== "updated" || e.action.type !== "success" || !kinds.has(String(e.query.queryKey[0])))
      return;
    changed.set(e.query.queryHash, e.query.queryKey);
    timer ??= setTimeout(write, pause);
  });
}

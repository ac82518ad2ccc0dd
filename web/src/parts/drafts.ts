const prefix = "mainstay.draft.";
let owner = "";

/** Whose drafts these are from now on: on a shared device nobody finds, or sends, what another one typed. */
export function setDraftOwner(person: string) {
  owner = person;
}

const keyOf = (key: string) => `${prefix}${owner && owner + "."}${key}`;

export function readDraft<T>(key: string): Partial<T> | undefined {
  try {
    const s = localStorage.getItem(keyOf(key));
    return s ? (JSON.parse(s) as Partial<T>) : undefined;
  } catch {
    return undefined; // storage switched off: drafts are a comfort, not a need
  }
}

export function writeDraft(key: string, value: unknown) {
  try {
    localStorage.setItem(keyOf(key), JSON.stringify(value));
  } catch {
    /* as above */
  }
}

export function clearDraft(key: string) {
  try {
    localStorage.removeItem(keyOf(key));
  } catch {
    /* as above */
  }
}

/** Keeps of a form what was typed: the fields that differ from what it opened with, without the secret ones. */
export function keepTyped<T extends object>(key: string, opened: T, now: Partial<T>, secret: string[] = []) {
  const same = (k: string) => JSON.stringify(now[k as keyof T]) === JSON.stringify(opened[k as keyof T]);
  const typed = Object.entries(now).filter(([k]) => !secret.includes(k) && !same(k));
  if (typed.length > 0) writeDraft(key, Object.fromEntries(typed));
  else clearDraft(key);
}

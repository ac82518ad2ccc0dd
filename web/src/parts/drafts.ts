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

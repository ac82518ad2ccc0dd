import { openDB, type IDBPDatabase } from "idb";

/** What this device keeps of its own: presses to send, and answers for a page without network. */
let opened: Promise<IDBPDatabase> | undefined;

export type Shelf = "presses" | "kept";

function open(): Promise<IDBPDatabase> {
  opened ??= openDB("mainstay", 1, {
    upgrade(db) {
      db.createObjectStore("presses", { keyPath: "id" });
      db.createObjectStore("kept");
    },
    // Another tab with a newer version must not wait for this one.
    blocking: (_current, _blocked, e) => {
      (e.target as IDBDatabase).close();
      opened = undefined;
    },
    terminated: () => (opened = undefined), // the browser closed it; it is opened again when it is needed
  });
  opened.catch(() => (opened = undefined));
  return opened;
}

/** Everything on a shelf; nothing where the browser keeps nothing. */
export async function shelved<T>(shelf: Shelf): Promise<T[]> {
  return (await (await open()).getAll(shelf)) as T[];
}

export async function shelve(shelf: Shelf, value: unknown, key?: string): Promise<void> {
  await (await open()).put(shelf, value, key);
}

export async function unshelve(shelf: Shelf, key: string): Promise<void> {
  await (await open()).delete(shelf, key);
}

export async function clearShelf(shelf: Shelf): Promise<void> {
  await (await open()).clear(shelf);
}

const views = new Map<string, () => void>();

/** Lets a view be fetched before it is opened, by whoever leads to it. */
export const warmable = (name: string, fetch: () => void) => void views.set(name, fetch);

/** Fetches a view, so that the next press opens it at once. */
export const warm = (name: string) => views.get(name)?.();

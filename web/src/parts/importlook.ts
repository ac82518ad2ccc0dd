import type { Schemas } from "../api/client";

type Seen = Schemas["ImportSeen"];

/** What would be taken, counted by what it is taken for; what was only guessed from its shape stands first. */
export function groups(
  features: Seen[],
): { kind: string; shape: string; guessed: boolean; names: string[] }[] {
  const out = new Map<string, { kind: string; shape: string; guessed: boolean; names: string[] }>();
  for (const f of features) {
    const key = `${f.guessed} ${f.kind} ${f.shape}`;
    const g = out.get(key) ?? { kind: f.kind, shape: f.shape, guessed: f.guessed, names: [] };
    g.names.push(f.name || "without a name");
    out.set(key, g);
  }
  return [...out.values()].sort((a, b) => Number(b.guessed) - Number(a.guessed));
}

/** The fields that mean nothing here, each once. */
export function unread(features: Seen[]): string[] {
  return [...new Set(features.flatMap((f) => f.unread))].sort();
}

import { type Schemas } from "../api/client";

export const kindName = (k: string) => k.replace(/-/g, " ");

/** The kinds of part that a type carries. */
export function kindsOf(types: Schemas["TypeEntry"][] | undefined, key: string): string[] {
  const t = types?.find((x) => x.profile.key === key);
  return [...new Set(t?.positions.map((p) => p.kind) ?? [])];
}

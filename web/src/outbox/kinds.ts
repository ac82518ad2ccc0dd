import type { QueryClient, QueryKey } from "@tanstack/react-query";
import { keepNow } from "../api/kept";
import type { Press } from "./model";

/** How a press is sent: as the contract takes it, and until when an answer is waited for. */
export interface Sending {
  header: { "Press-Id": string; "Press-Ago": number; "Press-By": string };
  signal: AbortSignal;
}

export interface Kind<B> {
  /** What was pressed, in a few words. */
  said: (body: B) => string;
  /** Sends it and puts the answer where it is shown. */
  send: (p: Press<B>, how: Sending, qc: QueryClient) => Promise<void>;
  /** How long an answer may take, in ms, where it is longer than usual. */
  takes?: number;
}

const kinds = new Map<string, Kind<never>>();

/** Makes a kind of press known under its name; the name stays for good, for presses outlive the page. */
export function pressKind<B>(name: string, k: Kind<B>): string {
  kinds.set(name, k as Kind<never>);
  return name;
}

export function kindOf(p: Press): Kind<unknown> | undefined {
  return kinds.get(p.kind) as Kind<unknown> | undefined;
}

/**
 * Puts the answer to a press in the place of what is shown. A look that began
 * before it would bring back how things were; it is ended first.
 */
export async function answered<T>(
  qc: QueryClient,
  queryKey: QueryKey,
  answer: T | ((old: T | undefined) => T | undefined),
) {
  await qc.cancelQueries({ queryKey });
  qc.setQueryData<T>(queryKey, answer as T);
  await keepNow(qc, queryKey); // before the press is forgotten, or a reload without network would know neither
}

/** What was pressed, in a few words. */
export function saidOf(p: Press): string {
  return kindOf(p)?.said(p.body) ?? p.kind;
}

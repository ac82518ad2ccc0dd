import createClient from "openapi-fetch";
import { heard, missed } from "./link";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** A problem of the contract, or one that never reached the server. */
export type Trouble = Omit<Schemas["Problem"], "type"> & { type: Schemas["Problem"]["type"] | "unreachable" };

/** An answer of the server that is not a success: a sentence, and the fields at fault. */
export class ProblemError extends Error {
  readonly type: Trouble["type"];
  readonly status: number;
  readonly title: string;
  readonly fields: { field: string; sentence: string }[];
  constructor(p: Trouble) {
    super(p.detail);
    this.type = p.type;
    this.status = p.status;
    this.title = p.title;
    this.fields = p.fields ?? [];
  }
}

const unreachable: Trouble = {
  type: "unreachable",
  title: "No connection",
  status: 0,
  detail:
    "The server does not answer. What you entered is kept on this device; check the connection and try again.",
};

export const api = createClient<paths>({ baseUrl: "/api/v1" });

type Result<T> = { data?: T; error?: unknown; response: Response };

/** Unwraps an answer: the data, or a ProblemError. */
export async function ask<T>(call: Promise<Result<T>>): Promise<T> {
  let r: Result<T>;
  try {
    r = await call;
  } catch (e) {
    if (!(e instanceof DOMException && e.name === "AbortError")) missed();
    throw new ProblemError(unreachable);
  }
  heard();
  if (r.response.ok) return r.data as T;
  const p = r.error as Partial<Schemas["Problem"]> | undefined;
  if (p?.detail && p.type && p.title) throw new ProblemError(p as Trouble);
  throw new ProblemError({ ...unreachable, status: r.response.status });
}

/** A new id; ids sort by the time they were made (UUID version 7). */
export function newId(): string {
  const b = crypto.getRandomValues(new Uint8Array(16));
  let t = Date.now();
  for (let i = 5; i >= 0; i--) {
    b[i] = t % 256;
    t = Math.floor(t / 256);
  }
  b[6] = (b[6]! & 0x0f) | 0x70;
  b[8] = (b[8]! & 0x3f) | 0x80;
  const h = Array.from(b, (x) => x.toString(16).padStart(2, "0")).join("");
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-${h.slice(12, 16)}-${h.slice(16, 20)}-${h.slice(20)}`;
}

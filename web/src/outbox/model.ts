import { ProblemError } from "../api/client";

/** One press of a person, kept on the device until the server has taken it. */
export interface Press<B = unknown> {
  /** UUID version 7; the server takes each id once. */
  id: string;
  person: string;
  personName: string;
  kind: string;
  /** What it is about: the id of the flight, the walk, the job. */
  thing: string;
  /** When it was made, by this device's clock, in ms. */
  at: number;
  /** Its place among all presses of this device. */
  order: number;
  body: B;
  /** It begins the thing: without it nothing about the thing can be taken. */
  opens?: boolean;
  /** How often the server broke down over it. */
  broke?: number;
  /** Why the server did not take it. */
  refused?: { title: string; sentence: string };
}

/** The order of the next press: after all there are, also those of another tab. */
export function orderAfter(all: Press[], now: number): number {
  return Math.max(now * 16, ...all.map((p) => p.order + 1));
}

export function inOrder(all: Press[]): Press[] {
  return [...all].sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** Which is sent next: the oldest of this person that was not refused, nor its beginning. */
export function nextToSend(all: Press[], person: string): Press | undefined {
  const shut = new Set(all.filter((p) => p.opens && p.refused).map((p) => p.thing));
  return inOrder(all).find((p) => p.person === person && !p.refused && !shut.has(p.thing));
}

/** How long ago a press was made, in seconds as the server takes it: never ahead, at most a week. */
export function ago(p: Pick<Press, "at">, now: number): number {
  return Math.min(Math.max((now - p.at) / 1000, 0), 604800);
}

/** What a device keeps about one thing: of the person who is here, and of others who used it before. */
export interface About {
  waiting: Press[];
  refused: Press[];
  /** Nobody sends these but their makers; what they say has not happened for anybody else. */
  others: Press[];
}

export function about(all: Press[], thing: string, person: string): About {
  const here = inOrder(all).filter((p) => p.thing === thing);
  const mine = here.filter((p) => p.person === person);
  return {
    waiting: mine.filter((p) => !p.refused),
    refused: mine.filter((p) => p.refused),
    others: here.filter((p) => p.person !== person),
  };
}

/** How long a press may be on its way before it is said to wait, in ms. */
export const onItsWay = 2500;

/** After so many breakdowns of the server over one press the others go past it. */
export const patience = 5;

/** Whether the server broke down over a press, and is not merely away or busy. */
export function breaks(e: unknown): boolean {
  return e instanceof ProblemError && e.type === "internal";
}

/**
 * What an error means for a press: it waits, because the server was not reached
 * or cannot just now, or it was refused and the sentence says why.
 */
export function outcome(e: unknown, broke = 0): "wait" | NonNullable<Press["refused"]> {
  if (!(e instanceof ProblemError))
    return {
      title: "Not taken",
      sentence: "This could not be sent. It is kept on this device; tell the chief what it says.",
    };
  if (breaks(e) && broke >= patience)
    return {
      title: e.title,
      sentence:
        "The server breaks down over this each time. It is kept on this device, and what came after it is sent; tell the chief.",
    };
  const later =
    e.type === "unreachable" ||
    e.type === "press-not-yours" ||
    e.status >= 500 ||
    [0, 401, 408, 425, 429].includes(e.status);
  if (later) return "wait";
  const fields = e.fields.map((f) => f.sentence).filter((s) => s !== e.message);
  return { title: e.title, sentence: [e.message, ...fields].join(" ") };
}

/** Presses that wait, in words: "3 presses wait to be sent". */
export function waitWords(n: number): string {
  return n === 1 ? "1 press waits to be sent" : `${n} presses wait to be sent`;
}

/** Reads presses of a feature: the body of one if it is of that kind. */
export function reader<M>() {
  return <K extends keyof M & string>(p: Press, kind: K): M[K] | undefined =>
    p.kind === kind ? (p.body as M[K]) : undefined;
}

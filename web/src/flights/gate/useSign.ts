import { useState } from "react";
import { newId, ProblemError } from "../../api/client";
import { useRelease } from "./api";
import type { GateProps } from "./GateView";

/** The form of the release; the key under the thumb sends it too. */
export const releaseForm = "release";

/** The pilot's signature on a gate: the PIN, what was wrong with it, and the sending. */
export function useSign({ g, kept, question, settled }: GateProps) {
  const [id, setId] = useState(newId);
  const [pin, setPin] = useState("");
  const [early, setEarly] = useState("");
  const send = useRelease();
  const problem = send.error instanceof ProblemError ? send.error : undefined;
  const wrong = (name: string) => problem?.fields.find((f) => f.field === name)?.sentence;
  const stopped = g.output.verdict === "stop";
  const sign = () => {
    if (!question.wind || send.isPending || !settled || stopped) return;
    if (pin === "") {
      setEarly("Enter your PIN; it is your signature.");
      return;
    }
    const body = { ...question, id, wind: question.wind, purpose: kept.purpose, gate_hash: g.hash, pin };
    setPin(""); // before anything is waited for: the next digits may come at once
    send.mutate(body, { onSuccess: () => setId(newId()) });
  };
  return {
    pin,
    setPin: (p: string) => {
      setEarly("");
      setPin(p);
    },
    sign,
    stopped,
    busy: send.isPending,
    ready: settled,
    wrong: (name: string) => (name === "pin" && early ? early : wrong(name)),
    /** What belongs to no field. */
    error: send.error && !problem?.fields.length ? send.error : undefined,
    /** Everything that is wrong, in one sentence for the foot of the page. */
    sentence: early || send.error?.message,
  };
}

export type Signing = ReturnType<typeof useSign>;

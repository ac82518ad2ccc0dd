import { useSignBriefing } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { ProblemError, type Schemas } from "../api/client";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";
import { postWords } from "./words";

interface SignItProps {
  job: string;
  briefing: Schemas["Briefing"];
  who: Schemas["JobPersonSeen"];
  onDone: () => void;
}

/** One more signature under the briefing, with the own PIN. */
export function SignIt({ job, briefing, who, onDone }: SignItProps) {
  const signBriefing = useSignBriefing();
  const [pin, setPin] = useState("");
  const [error, setError] = useState<unknown>();
  const [busy, setBusy] = useState(false);
  const wrong =
    error instanceof ProblemError ? error.fields.find((f) => f.field === "pin")?.sentence : undefined;
  const sign = async () => {
    setBusy(true);
    setError(undefined);
    try {
      await signBriefing.mutateAsync({
        id: job,
        body: { briefing_id: briefing.id, person_id: who.person_id, hash: briefing.hash, pin },
      });
      onDone();
    } catch (e) {
      setError(e);
    }
    setPin("");
    setBusy(false);
  };
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        if (!busy && pin.length >= 4) void sign();
      }}
    >
      {error !== undefined && !wrong && <Problem error={error} />}
      <PinPad
        value={pin}
        onChange={setPin}
        who={`${who.name}, ${postWords[who.post]}`}
        statement="I have read and understood this briefing."
        wrong={wrong}
      />
      <Button type="submit" className="btn-big w-100" disabled={busy || pin.length < 4}>
        Sign
      </Button>
    </form>
  );
}

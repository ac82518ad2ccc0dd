import { TickField } from "../parts/TickField";
import { useAnswerJob } from "./api";
import { useState } from "react";
import { type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Flag } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useAge } from "../parts/time";

/** What only a person can say about this job; each answer counts at once. */
export function AskPanel({ j }: { j: Schemas["Job"] }) {
  const answerJob = useAnswerJob();
  const may = useMay()("pilot", "crew") && j.state === "planned";
  const age = useAge();
  const [error, setError] = useState<unknown>();
  const answer = async (id: string, option: string) => {
    setError(undefined);
    try {
      await answerJob.mutateAsync({ id: j.id, body: { answers: [{ ask: id, option }] } });
    } catch (e) {
      setError(e);
    }
  };
  const open = j.asks.filter((a) => !a.option);
  const list = [...open, ...j.asks.filter((a) => a.option)];
  return (
    <Sheet title={open.length ? `${open.length} to answer` : "All answered"}>
      {error !== undefined && <Problem error={error} />}
      <p className="soft">What is not answered stops the flight. Answer for today, on the spot.</p>
      {list.map((a) => {
        const said = a.options.find((o) => o.id === a.option);
        return (
          <fieldset key={a.id} className="asked border-bottom py-2" disabled={!may}>
            <legend className="fs-6 fw-semibold mb-0">{a.question}</legend>
            {a.options.map((o) => (
              <TickField
                key={o.id}
                label={o.words}
                type="radio"
                name={a.id}
                checked={a.option === o.id}
                onChange={() => void answer(a.id, o.id)}
              />
            ))}
            {said?.then && (
              <p className="mb-1">
                <Flag verdict={said.verdict} size={14} /> {said.then}
              </p>
            )}
            <p className="soft mb-0">
              {a.citation}
              {a.at && ` · ${a.by}, ${age(a.at)}`}
            </p>
          </fieldset>
        );
      })}
    </Sheet>
  );
}

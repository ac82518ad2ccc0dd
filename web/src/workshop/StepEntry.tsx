import { stepReading } from "./forms";
import { Photos } from "../parts/Photos";
import { useEnterSteps } from "./api";
import { Explained } from "../parts/Explained";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { ProblemError, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { AreaField, NumberField, Wrong } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { PhotoField } from "../parts/PhotoField";
import { useZone } from "../parts/time";

type Order = Schemas["WorkOrder"];
type Step = Schemas["WorkStep"];

/** A step as it was done. */
export function StepDone({ s }: { s: Step }) {
  const z = useZone();
  return (
    <>
      <div className="d-flex justify-content-between gap-2 flex-wrap">
        <span>{s.step.text}</span>
        {s.at && <VerdictMark verdict={s.verdict} />}
      </div>
      <div className="soft">
        {s.sentence}
        {s.at && ` ${s.by}, ${z.both(s.at)}`}
      </div>
      <Photos ids={s.value?.photos ?? []} alt={(n) => `Photo ${n} of this step`} />
    </>
  );
}

/** One step as it is worked: done, not in order with a note, a reading judged as it is saved, photos. */
export function StepEntry({ o, s }: { o: Order; s: Step }) {
  const enterSteps = useEnterSteps();
  const qc = useQueryClient();
  const r = s.step.reading;
  const [number, setNumber] = useState(s.value?.number?.toString() ?? "");
  const [photos, setPhotos] = useState<string[]>(s.value?.photos ?? []);
  const [odd, setOdd] = useState(s.value?.not_ok ?? false);
  const [note, setNote] = useState(s.value?.note ?? "");
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const save = async (value: Schemas["StepEntry"]) => {
    setWrong("");
    setBusy(true);
    try {
      const fresh = await enterSteps.mutateAsync({
        id: o.id,
        body: { entries: [{ step_id: s.step.id, value }] },
      });
      qc.setQueryData(keys.order(o.id), fresh);
    } catch (e) {
      setWrong(
        e instanceof ProblemError ? e.message : "It was not saved. Try again; what you entered stays here.",
      );
    }
    setBusy(false);
  };
  const done = () => {
    if (!r) return save({ done: true, photos });
    const n = stepReading(r.quantity).safeParse(number);
    if (n.success) return save({ number: n.data, photos });
    setWrong(n.error.issues[0]!.message);
  };
  const doneWords = r ? "Save the reading" : s.at && s.verdict === "clear" ? "Done again" : "Done";
  return (
    <div className={s.at ? `judged ${s.verdict}` : "judged none"}>
      <strong>{s.step.text}</strong>
      {r && (
        <NumberField
          label={`${r.quantity}: ${r.bands.map((b) => `${b.target} ± ${b.tolerance}`).join(" or ")}`}
          unit={r.unit}
          value={number}
          onChange={(e) => setNumber(e.target.value)}
        />
      )}
      {s.step.photo && <PhotoField photos={photos} onChange={setPhotos} />}
      {odd && (
        <AreaField label="What is not in order" value={note} onChange={(e) => setNote(e.target.value)} />
      )}
      {wrong && (
        <div className="field mb-1">
          <Wrong>{wrong}</Wrong>
        </div>
      )}
      <div className="d-flex gap-2 flex-wrap align-items-center mt-1">
        {!odd && (
          <Button
            size="sm"
            disabled={busy}
            onClick={() => void done()}
            aria-label={`${doneWords}: ${s.step.text}`}
          >
            {doneWords}
          </Button>
        )}
        {odd ? (
          <>
            <Button
              size="sm"
              variant="danger"
              disabled={busy}
              onClick={() => void save({ not_ok: true, note, photos })}
            >
              Save as not in order
            </Button>
            <Button size="sm" variant="outline-primary" onClick={() => setOdd(false)}>
              Back
            </Button>
          </>
        ) : (
          <Button size="sm" variant="outline-primary" onClick={() => setOdd(true)}>
            Not in order
          </Button>
        )}
        {s.at && (
          <span>
            <VerdictMark verdict={s.verdict} /> <Explained text={s.sentence} />{" "}
            <span className="soft">{s.by}</span>
          </span>
        )}
      </div>
    </div>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useForm } from "react-hook-form";
import type { Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { decisionWords } from "../parts/Hoist";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useWithdraw } from "./api";
import { ended, withdrawal } from "./model";

type Decision = Schemas["JobDecisionSeen"];

interface Props {
  job: string;
  decisions: Decision[];
  decides: boolean; // this person may take one back
}

/** What was decided about one aircraft of a job, with what was taken back. */
export function Decisions({ job, decisions, decides }: Props) {
  const z = useZone();
  const [back, setBack] = useState<Decision>();
  return (
    <>
      {decisions.map((d) => (
        <p key={d.id} className="soft mb-1">
          {z.both(d.at)} {d.by}: {decisionWords[d.kind].toLowerCase()}, because {ended(d.reason)}
          {d.withdrawn ? (
            <>
              {" "}
              <strong>Taken back</strong> {z.both(d.withdrawn.at)} by {d.withdrawn.by}, because{" "}
              {ended(d.withdrawn.why)}
            </>
          ) : (
            decides && (
              <Button variant="link" size="sm" className="d-print-none" onClick={() => setBack(d)}>
                Take back
              </Button>
            )
          )}
        </p>
      ))}
      {back && <TakeBack job={job} d={back} onClose={() => setBack(undefined)} />}
    </>
  );
}

function TakeBack({ job, d, onClose }: { job: string; d: Decision; onClose: () => void }) {
  const withdraw = useWithdraw(job, d.id);
  const form = useForm({ resolver: zodResolver(withdrawal), defaultValues: { reason: "" } });
  const send = form.handleSubmit((v) => withdraw.mutateAsync(v).then(onClose, () => undefined));
  return (
    <Dialog title={`Take back: ${decisionWords[d.kind].toLowerCase()}`} open onClose={onClose}>
      <form onSubmit={(e) => void send(e)} noValidate>
        {withdraw.error && <Problem error={withdraw.error} />}
        <p>
          It counts no longer, and what it lifted stands again. It stays on file. A return height or take-off
          place that it set stays as it is: change the job for that.
        </p>
        <AreaField
          label="Why it no longer holds"
          maxLength={400}
          {...form.register("reason")}
          wrong={form.formState.errors.reason?.message}
        />
        <Button type="submit" className="w-100" disabled={withdraw.isPending}>
          Take it back
        </Button>
      </form>
    </Dialog>
  );
}

import { Notice } from "../../parts/Notice";
import { useSession } from "../../parts/session";
import { TextField } from "../../parts/Field";
import { VerdictMark, words } from "../../parts/Flag";
import { counted } from "../../parts/number";
import { PinPad } from "../../parts/PinPad";
import { Sheet } from "../../parts/Sheet";
import { Problem } from "../../parts/states";
import type { GateProps } from "./GateView";
import { releaseForm, type Signing } from "./useSign";

type Props = Pick<GateProps, "g" | "kept" | "change"> & { s: Signing };

/** The release: what the flight is for, the cautions, and the pilot's own PIN. */
export function Sign({ g, kept, change, s }: Props) {
  const { person } = useSession();
  const n = g.output.findings.length;
  return (
    <Sheet title="Release">
      <form
        id={releaseForm}
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          s.sign();
        }}
      >
        {s.error && <Problem error={s.error} />}
        <TextField
          label="What this flight is for"
          value={kept.purpose}
          onChange={(e) => change({ purpose: e.target.value })}
          wrong={s.wrong("purpose")}
          maxLength={120}
        />
        {g.output.first_leg && <p className="fs-1 fw-semibold lh-sm">{g.output.first_leg}</p>}
        <Notice className="mb-3">
          <ul className="ps-2">
            {g.output.cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </Notice>
        {s.stopped ? (
          <p className="mb-0">
            <VerdictMark verdict="stop" /> It cannot be released. Do what the findings say; the gate looks
            again by itself.
          </p>
        ) : (
          <PinPad
            value={s.pin}
            onChange={s.setPin}
            who={person.name}
            statement={`As remote pilot in command I release this flight, gate ${words[g.output.verdict].toLowerCase()} with ${n === 0 ? "no finding" : counted(n, "finding")}.`}
            wrong={s.wrong("pin")}
          />
        )}
      </form>
    </Sheet>
  );
}

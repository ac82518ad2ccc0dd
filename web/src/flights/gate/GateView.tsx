import { columns } from "../../parts/columns";
import { useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useMay, useSession } from "../../parts/session";
import { ViewHead } from "../../parts/Sheet";
import { QueryView } from "../../parts/states";
import { useUnits } from "../../parts/units";
import { useGate } from "./api";
import { Findings } from "./Findings";
import { GateBar } from "./GateBar";
import { Inputs } from "./Inputs";
import { jobOf, readWind, type Kept, type WindWrong } from "./model";
import { Released } from "./Released";
import { Sign } from "./Sign";
import { useKept, useProposals } from "./useKept";
import { useSign } from "./useSign";

/** May this aircraft fly now? What flies, the findings by who can lift them, the release, and take-off. */
export function GateView() {
  const { aircraft = "" } = useParams();
  const [params] = useSearchParams();
  const u = useUnits();
  const { kept, change, setKept } = useKept(aircraft);
  const read = readWind(kept.wind, u);
  const question: Schemas["GateQuestion"] = {
    aircraft_id: aircraft,
    pack_ids: kept.packs ?? [],
    wind: read.wind ?? null,
    acceptance: params.get("acceptance"),
    job_id: jobOf(kept),
  };
  const q = useGate(question);
  useProposals(kept, setKept, q.data);
  return (
    <QueryView query={q} what="the gate">
      {(g) => (
        <Gate
          g={g}
          kept={kept}
          change={change}
          wrong={read.wrong}
          question={question}
          settled={!q.isPlaceholderData}
        />
      )}
    </QueryView>
  );
}

export interface GateProps {
  g: Schemas["GateAnswer"];
  kept: Kept;
  change: (part: Partial<Kept>) => void;
  wrong: WindWrong;
  question: Schemas["GateQuestion"];
  /** Whether the answer is to what is chosen now. */
  settled: boolean;
}

function Gate(props: GateProps) {
  const { g } = props;
  const session = useSession();
  const may = useMay();
  const signing = useSign(props);
  const head = (
    <ViewHead title={`Gate: ${g.aircraft.name}`}>
      <span className="soft align-self-center">
        {g.type.profile.name} · {g.aircraft.registration || "not registered"}
      </span>
    </ViewHead>
  );
  if (g.release)
    return (
      <>
        {head}
        <Released g={g} r={g.release} mine={g.release.pilot_id === session.person.id} />
        <p className="soft mt-3">{session.caution}</p>
      </>
    );
  return (
    <>
      {head}
      <div className="two" style={columns("minmax(0, 2fr) minmax(0, 3fr)")}>
        <Inputs {...props} />
        <div className="vstack gap-3">
          <Findings {...props} />
          {may("pilot") && <Sign {...props} s={signing} />}
          <p className="soft">{session.caution}</p>
        </div>
      </div>
      <GateBar g={g} s={signing} pilot={may("pilot")} />
    </>
  );
}

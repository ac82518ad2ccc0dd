import { Notice } from "../parts/Notice";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useJobsNow } from "../jobs/api";
import { PackChoice } from "../rack/PackChoice";
import { usePacks } from "../api/queries";
import { Fold } from "../parts/Fold";
import { PhotoField } from "../parts/PhotoField";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { serverNow } from "../parts/time";
import { useRounds, useStartWalk } from "./api";
import { jobNow, packsFor, roundOf } from "./model";
import { RoundChoice } from "./RoundChoice";
import { Thumb } from "../parts/Thumb";

/** Before the walk: which round, and the packs that come along. */
export function WalkStart() {
  const { aircraft = "" } = useParams();
  const q = useQuery({
    queryKey: keys.aircraft(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id: aircraft } } })),
  });
  const packs = usePacks();
  return (
    <QueryView query={q} what="the aircraft">
      {(d) => (
        <QueryView query={packs} what="the rack">
          {(p) => <WithRounds d={d} packs={p.packs} />}
        </QueryView>
      )}
    </QueryView>
  );
}

interface StartProps {
  d: Schemas["AircraftDetail"];
  packs: Schemas["Pack"][];
}

function WithRounds(p: StartProps) {
  const rounds = useRounds(p.d.type.profile.key);
  return (
    <QueryView query={rounds} what="the checklist">
      {(r) => <Start {...p} rounds={r.rounds} />}
    </QueryView>
  );
}

function Start({ d, packs, rounds }: StartProps & { rounds: Schemas["Round"][] }) {
  const [params] = useSearchParams();
  const go = useNavigate();
  const [id] = useState(newId);
  const [kind, setKind] = useState(() => roundOf(rounds, params.get("kind")));
  const [paper, setPaper] = useState<string[]>([]);
  const round = rounds.find((r) => r.key === kind);
  const n = d.type.profile.packs.count;
  const fit = packsFor(packs, d);
  const [chosen, setChosen] = useState(() => fit.slice(0, n).map((p) => p.id));
  const start = useStartWalk();
  const resume = round?.check && d.findings.find((f) => f.remedy?.kind === "walkround-resume")?.remedy?.id;
  const job = jobNow(useJobsNow().data?.rows ?? [], d.aircraft.name, serverNow());
  const begin = () =>
    start.mutate(
      {
        id,
        aircraft_id: d.aircraft.id,
        kind,
        pack_ids: round?.packs ? chosen : [],
        job_id: params.get("job") ?? job?.id ?? null,
        ...(paper.length ? { paper } : {}),
      },
      { onSuccess: (w) => void go(`/walk/${w.id}`, { replace: true }) },
    );
  return (
    <>
      <ViewHead title={`Walk round ${d.aircraft.name}`} />
      <div className="vstack gap-3" style={{ maxWidth: 760 }}>
        {resume && (
          <Notice>
            <div>
              <p>A walk round this aircraft is already under way; its entries are kept.</p>
              <Link className="btn btn-primary mt-2" to={`/walk/${resume}`}>
                Go on with it
              </Link>
            </div>
          </Notice>
        )}
        <Sheet title="Which round">
          <RoundChoice rounds={rounds} chosen={kind} onChoose={setKind} />
        </Sheet>
        {round?.packs && (
          <Sheet title={n === 1 ? "The pack that comes along" : `The ${n} packs that come along`}>
            <PackChoice
              packs={fit}
              rack={packs}
              type={d.type.profile.name}
              count={n}
              chosen={chosen}
              onChange={setChosen}
            />
          </Sheet>
        )}
        <Fold summary="On paper">
          <p className="mt-2">
            <a
              href={`/api/v1/types/${d.type.profile.key}/paper.pdf?round=${kind}&aircraft=${d.aircraft.id}`}
              download
            >
              The list to print and fill in by hand
            </a>
            . To enter one that was filled in, take its photo first: it stays beside the record.
          </p>
          <PhotoField photos={paper} onChange={setPaper} />
        </Fold>
      </div>
      <Thumb>
        {start.error && <Problem error={start.error} />}
        <Button className="btn-big" onClick={begin}>
          {paper.length ? "Enter" : "Start"} the {round?.title.toLowerCase()}
        </Button>
      </Thumb>
    </>
  );
}

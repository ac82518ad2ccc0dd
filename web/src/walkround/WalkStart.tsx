import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useJobs } from "../jobs/JobsView";
import { PackChoice } from "../packs/PackChoice";
import { usePacks } from "../packs/PacksView";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { serverNow } from "../parts/time";

/** Before the walk: full or short, and the packs that come along. */
export function WalkStart() {
  const { aircraft = "" } = useParams();
  const [params] = useSearchParams();
  const q = useQuery({
    queryKey: keys.aircraft(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id: aircraft } } })),
  });
  const packs = usePacks();
  const kind = params.get("kind") === "turnaround" ? "turnaround" : "walkround";
  return (
    <QueryView query={q} what="the aircraft">
      {(d) => (
        <QueryView query={packs} what="the rack">
          {(p) => <Start d={d} packs={p.packs} kind={kind} />}
        </QueryView>
      )}
    </QueryView>
  );
}

function Start({
  d,
  packs,
  kind: wanted,
}: {
  d: Schemas["AircraftDetail"];
  packs: Schemas["Pack"][];
  kind: "walkround" | "turnaround";
}) {
  const go = useNavigate();
  const [id] = useState(newId);
  const [kind, setKind] = useState(wanted);
  const n = d.type.profile.packs.count;
  const fit = packs.filter(
    (p) => p.fits.includes(d.type.profile.name) && (p.state === "charged" || p.fitted_to === d.aircraft.name),
  );
  const [chosen, setChosen] = useState<string[]>(() =>
    [...fit]
      .sort((a, b) => (b.percent ?? 0) - (a.percent ?? 0))
      .slice(0, n)
      .map((p) => p.id),
  );
  const [error, setError] = useState<unknown>();
  const resume = d.findings.find((f) => f.remedy?.kind === "walkround-resume")?.remedy?.id;
  // The walk belongs to the job whose window it is now.
  const job = useJobs().data?.jobs.find(
    (j) =>
      j.state === "planned" &&
      j.aircraft.includes(d.aircraft.name) &&
      Date.parse(j.from) <= serverNow() + 2 * 3_600_000 &&
      serverNow() < Date.parse(j.to),
  );
  const start = async () => {
    setError(undefined);
    try {
      const w = await ask(
        api.POST("/walkrounds", {
          body: { id, aircraft_id: d.aircraft.id, kind, pack_ids: chosen, job_id: job?.id ?? null },
        }),
      );
      void go(`/walk/${w.id}`, { replace: true });
    } catch (e) {
      setError(e);
    }
  };
  return (
    <>
      <ViewHead title={`Walk round ${d.aircraft.name}`} />
      <div className="stack" style={{ maxWidth: 760 }}>
        {resume && (
          <div className="notice">
            <div>
              <p>A walk round this aircraft is already under way; its entries are kept.</p>
              <Link className="btn btn-primary mt-2" to={`/walk/${resume}`}>
                Go on with it
              </Link>
            </div>
          </div>
        )}
        <Sheet title="Which check">
          <div className="choice">
            <Button
              variant={kind === "walkround" ? "primary" : "outline-primary"}
              aria-pressed={kind === "walkround"}
              onClick={() => setKind("walkround")}
            >
              Walkround: everything, first flight of the day
            </Button>
            <Button
              variant={kind === "turnaround" ? "primary" : "outline-primary"}
              aria-pressed={kind === "turnaround"}
              onClick={() => setKind("turnaround")}
            >
              Turnaround: the short one, with every pack
            </Button>
          </div>
        </Sheet>
        <Sheet title={n === 1 ? "The pack that comes along" : `The ${n} packs that come along`}>
          <PackChoice packs={fit} count={n} chosen={chosen} onChange={setChosen} />
        </Sheet>
      </div>
      <div className="thumb">
        {error !== undefined && <Problem error={error} />}
        <Button className="btn-big" onClick={() => void start()}>
          Start the {kind}
        </Button>
      </div>
    </>
  );
}

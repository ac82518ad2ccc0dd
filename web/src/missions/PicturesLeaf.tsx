import { useState } from "react";
import { Button } from "react-bootstrap";
import { MissionMap } from "./MissionMap";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";
import { useFlyAgain, useTakeBack, type Flight, type Plan } from "./api";
import { BringPictures } from "./BringPictures";
import { FlightPick } from "./FlightPick";
import { flightShown } from "./model";
import { Taken } from "./Taken";

/** After a flight: what was pictured of what was planned, what is missing, and flying that again. */
export function PicturesLeaf({ p }: { p: Plan }) {
  const [params] = useAddress();
  const may = useMay()("pilot", "crew");
  const f = flightShown(p, params.get("flight"));
  const [looked, setLooked] = useState<{ flight: number; taken: NonNullable<Flight["flown"]>["taken"] }>();
  if (p.version === 0 || !f)
    return (
      <Sheet title="Pictures">
        <Empty>Keep a plan first; then its pictures can be held against it.</Empty>
      </Sheet>
    );
  const taken = f.flown?.taken ?? (looked?.flight === f.number ? looked.taken : undefined);
  return (
    <>
      <FlightPick p={p} f={f} />
      <div className="two">
        <div className="vstack gap-3">
          {f.flown ? (
            <OnRecord p={p} f={f} />
          ) : may ? (
            <BringPictures
              key={f.number}
              p={p}
              f={f}
              onLooked={(t) => setLooked(t && { flight: f.number, taken: t })}
            />
          ) : (
            <Sheet title={`Flight ${f.number}`}>It is not on record as flown.</Sheet>
          )}
          {f.flown && <Taken t={f.flown.taken} survey={p.kind === "survey"} />}
        </div>
        <MissionMap
          p={{ ...p, flights: [f] }}
          flight={f.number}
          taken={taken}
          label={`Flight ${f.number}: ${taken ? `${taken.count} pictures, ${taken.gaps.length} gaps` : "not flown"}`}
        />
      </div>
    </>
  );
}

function OnRecord({ p, f }: { p: Plan; f: Flight }) {
  const may = useMay();
  const again = useFlyAgain(p.job_id, p.aircraft_id);
  const back = useTakeBack(p.job_id, p.aircraft_id);
  const [, go] = useAddress();
  const gaps = f.flown!.taken.gaps.length;
  const planned = p.flights.some((x) => x.again && x.number > f.number && x.part === f.part);
  const next = () =>
    again.mutate(f.number, {
      onSuccess: (q) => go({ flight: String(q.flights.at(-1)?.number ?? f.number) }),
    });
  return (
    <Sheet title={`Flight ${f.number} is flown`}>
      <p>
        By {f.flown!.by}. {f.flown!.running === true && "The camera was still running at landing. "}
        {f.flown!.shake && `Seen: ${f.flown!.shake}`}
      </p>
      {(again.error ?? back.error) && <Problem error={again.error ?? back.error} />}
      <div className="d-flex gap-2 flex-wrap">
        {gaps > 0 && may("pilot") && !planned && (
          <Button disabled={again.isPending} onClick={next}>
            {again.isPending ? "Planning…" : `Fly ${gaps === 1 ? "the gap" : `${gaps} gaps`} again`}
          </Button>
        )}
        {may("pilot", "crew") && (
          <Button variant="outline-primary" disabled={back.isPending} onClick={() => back.mutate(f.number)}>
            Not flown after all
          </Button>
        )}
      </div>
      {gaps > 0 && planned && (
        <p className="soft mb-0 mt-2">Its gaps are planned as a flight of their own.</p>
      )}
    </Sheet>
  );
}

import { Rows } from "../parts/Rows";
import { useSaveEvening } from "./api";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { MomentField } from "../parts/DateField";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { instant, useZone } from "../parts/time";

/** What flies on the day and by when packs must be ready; every change is kept at once and plans anew. */
export function Flying({ e }: { e: Schemas["Evening"] }) {
  const saveEvening = useSaveEvening();
  const qc = useQueryClient();
  const may = useMay();
  const z = useZone();
  const edits = may("pilot", "crew", "technician");
  const [error, setError] = useState<unknown>();
  const local = z.local;
  const [start, setStart] = useState(() => local(e.start_at));
  const [ready, setReady] = useState(() => local(e.ready_by));
  const save = async (sorties: Record<string, number>, from = start, by = ready) => {
    setError(undefined);
    const a = instant(from, z.zone);
    const b = instant(by, z.zone);
    if (!a || !b) {
      setError(new Error("Enter both times, like 20:00 and 06:00."));
      return;
    }
    try {
      const fresh = await saveEvening.mutateAsync({
        day: e.day,
        body: {
          start_at: a,
          ready_by: b,
          sorties: e.flying.map((f) => ({
            aircraft_id: f.aircraft_id,
            sorties: sorties[f.aircraft_id] ?? f.sorties,
          })),
        },
      });
      qc.setQueryData(keys.evening(e.day), fresh);
    } catch (x) {
      setError(x);
    }
  };
  return (
    <Sheet title={`What flies on ${e.day}`}>
      {error !== undefined && <Problem error={error} />}
      <Rows cols="minmax(0, 1fr) auto" always className="mb-3">
        {e.flying.map((f) => (
          <ListGroup.Item as="li" key={f.aircraft_id}>
            <span>
              <Link to={`/fleet/${f.aircraft_id}`}>{f.aircraft}</Link>
              <span className="soft">
                {" "}
                {f.packs} pack{f.packs > 1 && "s"} a flight
              </span>
            </span>
            <span className="d-inline-flex align-items-center flex-shrink-0">
              <Button
                variant="outline-primary"
                aria-label={`One sortie fewer for ${f.aircraft}`}
                disabled={!edits || f.sorties === 0}
                onClick={() => void save({ [f.aircraft_id]: f.sorties - 1 })}
              >
                −
              </Button>
              <span className="fig fs-5 px-3" aria-label={`Sorties of ${f.aircraft}`}>
                {f.sorties}
              </span>
              <Button
                variant="outline-primary"
                aria-label={`One sortie more for ${f.aircraft}`}
                disabled={!edits || f.sorties >= 60}
                onClick={() => void save({ [f.aircraft_id]: f.sorties + 1 })}
              >
                +
              </Button>
            </span>
          </ListGroup.Item>
        ))}
      </Rows>
      {e.flying.length === 0 && <p>There is no aircraft in service.</p>}
      <MomentField
        label="Charging begins"
        zone={z.zone}
        value={start}
        disabled={!edits}
        onChange={(x) => setStart(x.target.value)}
        onBlur={() => start !== local(e.start_at) && void save({}, start, ready)}
      />
      <MomentField
        label="All ready by"
        zone={z.zone}
        value={ready}
        disabled={!edits}
        onChange={(x) => setReady(x.target.value)}
        onBlur={() => ready !== local(e.ready_by) && void save({}, start, ready)}
      />
      <p className="soft mb-0">
        Each aircraft gets the packs of its sorties and one fill to spare. Times of{" "}
        {z.zone.split("/").pop()?.replace("_", " ")}.
      </p>
    </Sheet>
  );
}

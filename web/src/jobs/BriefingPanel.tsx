import { useWriteBriefing } from "./api";
import { Notice } from "../parts/Notice";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { Flag } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { postWords } from "./words";
import { SignIt } from "./SignIt";

/** The briefing as it was written from the assessment, read and signed by each participant. */
export function BriefingPanel({ j }: { j: Schemas["Job"] }) {
  const writeBriefing = useWriteBriefing();
  const z = useZone();
  const may = useMay();
  const [signer, setSigner] = useState<Schemas["JobPersonSeen"]>();
  const [error, setError] = useState<unknown>();
  const b = j.briefing;
  const writes = may("pilot", "crew") && j.state === "planned";
  const write = async () => {
    setError(undefined);
    try {
      await writeBriefing.mutateAsync({ id: j.id, body: { id: newId() } });
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Sheet
      title="Briefing"
      aside={
        writes && (
          <Button size="sm" variant="outline-primary" className="d-print-none" onClick={() => void write()}>
            {b ? "Write it anew" : "Write it"}
          </Button>
        )
      }
    >
      {error !== undefined && <Problem error={error} />}
      {!b && (
        <Empty>
          Not written yet. It is made from what is known now: conditions, hazards, emergency, roles, signals.
          Read the weather and the airspace first.
        </Empty>
      )}
      {b && (
        <>
          <p className="soft mb-2">
            Written {z.both(b.at)} by {b.by}. It holds for this crew, way of flying, site and day.
          </p>
          {b.changed && (
            <Notice verdict="stop" role="alert" className="mb-2">
              <Flag verdict="stop" />
              <p className="m-0">It no longer holds: {b.changed}. Write it anew and brief everybody again.</p>
            </Notice>
          )}
          {b.sections.map((s) => (
            <section key={s.title} className="mt-3">
              <h3>{s.title}</h3>
              <ul>
                {s.lines.map((l, i) => (
                  <li key={i}>{l}</li>
                ))}
              </ul>
            </section>
          ))}
          <h3 className="mt-3">Read and understood</h3>
          <ListGroup as="ul" variant="flush">
            {b.signed.map((g) => (
              <ListGroup.Item as="li" key={g.person_id}>
                <Flag verdict="clear" size={14} /> {g.name}{" "}
                <span className="soft fig">signed {z.time(g.at)}</span>
              </ListGroup.Item>
            ))}
            {b.missing.map((p) => (
              <ListGroup.Item as="li" key={p.person_id}>
                <Flag verdict="stop" size={14} /> {p.name} <span className="soft">{postWords[p.post]}</span>{" "}
                {!b.changed && j.state === "planned" && may("pilot", "crew", "technician") && (
                  <Button size="sm" className="d-print-none ms-2" onClick={() => setSigner(p)}>
                    {p.name.split(" ")[0]} signs
                  </Button>
                )}
              </ListGroup.Item>
            ))}
          </ListGroup>
          <Dialog
            title={`${signer?.name ?? ""} has read the briefing`}
            open={signer !== undefined}
            onClose={() => setSigner(undefined)}
          >
            {signer && (
              <SignIt
                key={signer.person_id}
                job={j.id}
                briefing={b}
                who={signer}
                onDone={() => setSigner(undefined)}
              />
            )}
          </Dialog>
        </>
      )}
    </Sheet>
  );
}

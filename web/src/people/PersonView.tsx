import { usePeople } from "../api/queries";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { PersonForm } from "./PersonForm";
import { Standing } from "./CrewView";
import { Papers } from "./Papers";
import { ReadinessSheet } from "../readiness/ReadinessSheet";

/** One person: roles, certificate and recency, licences, and how far on each type. */
export function PersonView() {
  const { id = "" } = useParams();
  const q = usePeople();
  const may = useMay()();
  const [change, setChange] = useState(false);
  return (
    <QueryView query={q} what="the person">
      {(d) => {
        const p = d.people.find((x) => x.id === id);
        if (!p)
          return <Empty action={<Link to="/crew">To the crew</Link>}>There is nobody at this address.</Empty>;
        return (
          <>
            <ViewHead title={p.name}>
              <span className="soft align-self-center">{p.roles.join(", ")}</span>
              {may && (
                <Button
                  variant="outline-primary"
                  aria-label={`Change ${p.name}`}
                  onClick={() => setChange(true)}
                >
                  Change
                </Button>
              )}
            </ViewHead>
            <div className="two">
              <div className="vstack gap-3">
                <Sheet title="Certificate and recency">
                  <p className="mb-1">
                    <Standing p={p} />
                  </p>
                  <p className="soft mb-0">
                    {p.certificate ? `Certificate ${p.certificate}` : "No certificate on file"}
                    {p.trained_on && `, trained ${p.trained_on}; the 24th month counts to its end`}
                    {p.stick_mode ? `, flies stick mode ${p.stick_mode}` : ", stick mode not on file"}.
                  </p>
                </Sheet>
                <Sheet title="Licences and training">
                  <Papers person={id} />
                </Sheet>
              </div>
              <ReadinessSheet person={id} name={p.name} />
            </div>
            <Dialog title={`Change ${p.name}`} open={change} onClose={() => setChange(false)}>
              <PersonForm key={p.version} p={p} onDone={() => setChange(false)} />
            </Dialog>
          </>
        );
      }}
    </QueryView>
  );
}

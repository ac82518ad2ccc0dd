import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { counted } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { PracticeForm } from "./PracticeForm";

type Readiness = Schemas["Readiness"];

/** How far a person has come on each type, by logged flying by hand. */
export function ReadinessSheet({ person, name }: { person: string; name: string }) {
  const q = useQuery({
    queryKey: keys.readiness(person),
    queryFn: () => ask(api.GET("/people/{id}/readiness", { params: { path: { id: person } } })),
  });
  const may = useMay()("pilot");
  const [open, setOpen] = useState(false);
  return (
    <QueryView query={q} what="the practice">
      {(d) => {
        const begun = d.types.filter((t) => t.empty_packs + t.loaded_packs + t.landings > 0);
        return (
          <Sheet
            title="Ready for which type"
            aside={
              may && (
                <Button
                  size="sm"
                  variant="outline-primary"
                  className="d-print-none"
                  onClick={() => setOpen(true)}
                >
                  Log practice
                </Button>
              )
            }
          >
            <p className="soft">
              By hand before the first job on a type: {d.need_empty} packs empty, then for a sprayer{" "}
              {d.need_loaded} with a full tank without spraying, take-offs and landings, nose-in.
            </p>
            <ListGroup as="ul" variant="flush">
              {begun.map((t) => (
                <ListGroup.Item as="li" key={t.type_key}>
                  <VerdictMark verdict={t.open ? "clear" : "watch"} /> <strong>{t.type}</strong>{" "}
                  {t.open ? "open" : t.missing.join("; ")}
                  <Steps t={t} d={d} />
                </ListGroup.Item>
              ))}
            </ListGroup>
            {begun.length < d.types.length && (
              <p className="soft mt-2 mb-0">
                Not begun:{" "}
                {d.types
                  .filter((t) => !begun.includes(t))
                  .map((t) => t.type)
                  .join(", ")}
                .
              </p>
            )}
            <h3 className="mt-3">Logged practice</h3>
            {d.log.length === 0 && <p className="mb-0">None.</p>}
            <ListGroup as="ul" variant="flush">
              {d.log.map((l) => (
                <ListGroup.Item as="li" key={l.id}>
                  <span className="fig">{l.flown_on}</span>{" "}
                  {d.types.find((t) => t.type_key === l.type_key)?.type ?? l.type_key}, {l.phase}:{" "}
                  {counted(l.packs, "pack")}, {counted(l.landings, "landing")}
                  {l.nose_in && ", nose-in"}
                  <div className="soft">
                    signed by {l.signed_by}
                    {l.note && ` · ${l.note}`}
                  </div>
                </ListGroup.Item>
              ))}
            </ListGroup>
            <Dialog title={`Practice of ${name}`} open={open} onClose={() => setOpen(false)}>
              <PracticeForm person={person} d={d} onDone={() => setOpen(false)} />
            </Dialog>
          </Sheet>
        );
      }}
    </QueryView>
  );
}

/** The steps of the syllabus as boxes that fill. */
function Steps({ t, d }: { t: Schemas["TypeReadiness"]; d: Readiness }) {
  const row = (label: string, have: number, need: number) => (
    <span role="img" aria-label={`${label}: ${have} of ${need}`}>
      <span className="soft">{label}</span> {"■".repeat(Math.min(have, need))}
      {"□".repeat(Math.max(need - have, 0))}
    </span>
  );
  return (
    <div className="d-flex flex-wrap gap-3 mt-1">
      {row("empty", t.empty_packs, d.need_empty)}
      {t.tank && row("loaded", t.loaded_packs, d.need_loaded)}
      {row("landings", t.landings, t.tank ? d.need_landings : Math.ceil(d.need_landings / 2))}
      {row("nose-in", t.nose_in ? 1 : 0, 1)}
    </div>
  );
}

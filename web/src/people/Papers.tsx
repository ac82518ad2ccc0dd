import { usePeople } from "../api/queries";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { ScrollX } from "../parts/ScrollX";
import { Empty, QueryView } from "../parts/states";
import { heldWords } from "../flights/gate/rules";
import { PaperForm } from "./PaperForm";
import { Holds } from "./Holds";

type Paper = Schemas["Paper"];

/** Licences, certificates, exemptions and waivers: those of one person, or of all and the crew. */
export function Papers({ person }: { person?: string }) {
  const q = useQuery({ queryKey: keys.documents, queryFn: () => ask(api.GET("/documents")) });
  const people = usePeople();
  const may = useMay()();
  const [open, setOpen] = useState<Paper | "new" | null>(null);
  const name = (id: string | null | undefined) => people.data?.people.find((p) => p.id === id)?.name;
  return (
    <QueryView query={q} what="the papers">
      {(d) => {
        const shown = d.documents.filter((p) => !person || p.person_id === person);
        return (
          <>
            {may && (
              <p className="d-print-none">
                <Button variant={person ? "outline-primary" : "primary"} onClick={() => setOpen("new")}>
                  Put a document on file
                </Button>
              </p>
            )}
            {shown.length === 0 ? (
              <Empty>
                {person
                  ? "No licence or training is on file for this person."
                  : "Nothing is on file. Exemptions, the agricultural certificate, insurance, waivers and people's licences stand here; rules that need one say so."}
              </Empty>
            ) : (
              <ScrollX label="Documents">
                <Table className="paper">
                  <thead>
                    <tr>
                      <th>Document</th>
                      {!person && <th>Whose</th>}
                      <th>Number</th>
                      <th>Issued</th>
                      <th>Ends</th>
                      <th>Today</th>
                      {may && <th>Change</th>}
                    </tr>
                  </thead>
                  <tbody>
                    {shown.map((p) => (
                      <tr key={p.id}>
                        <td>
                          {p.name}
                          {(p.conditions || p.rules.length > 0) && (
                            <div className="soft">
                              {[
                                p.rules.length > 0 && `names ${p.rules.map((r) => heldWords[r]).join(", ")}`,
                                p.conditions,
                              ]
                                .filter(Boolean)
                                .join(" · ")}
                            </div>
                          )}
                        </td>
                        {!person && (
                          <td>
                            {p.person_id ? (
                              <Link to={`/crew/${p.person_id}`}>{name(p.person_id) ?? "…"}</Link>
                            ) : (
                              "the crew"
                            )}
                          </td>
                        )}
                        <td className="fig">{p.number}</td>
                        <td className="fig">{p.issued_on ?? <span className="soft">not known</span>}</td>
                        <td className="fig">{p.expires_on ?? <span className="soft">does not end</span>}</td>
                        <td>
                          <Holds p={p} />
                        </td>
                        {may && (
                          <td>
                            <Button
                              size="sm"
                              variant="outline-primary"
                              aria-label={`Change ${p.name} ${p.number}`}
                              onClick={() => setOpen(p)}
                            >
                              Change
                            </Button>
                          </td>
                        )}
                      </tr>
                    ))}
                  </tbody>
                </Table>
              </ScrollX>
            )}
            <Dialog
              title={open === "new" ? "Put a document on file" : "Change a document"}
              open={open !== null}
              onClose={() => setOpen(null)}
            >
              {open !== null && (
                <PaperForm
                  key={open === "new" ? "new" : `${open.id}-${open.version}`}
                  p={open === "new" ? undefined : open}
                  person={person}
                  kinds={d.kinds}
                  people={people.data?.people ?? []}
                  onDone={() => setOpen(null)}
                />
              )}
            </Dialog>
          </>
        );
      }}
    </QueryView>
  );
}

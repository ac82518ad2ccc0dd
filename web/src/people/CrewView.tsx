import { usePeople } from "../api/queries";
import { useState } from "react";
import { Link } from "react-router";
import { Button, Table } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { VerdictMark } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { ScrollX } from "../parts/ScrollX";
import { ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { PersonForm } from "./PersonForm";
import { FitToday } from "./FitToday";
import { Papers } from "./Papers";

type Person = Schemas["Person"];

/** The crew: who may do what, who is fit today, and the papers everything rests on. */
export function CrewView() {
  const [params] = useAddress();
  const tab = params.get("tab") ?? "people";
  return (
    <>
      <ViewHead title="Crew" />
      <Tabs
        label="Parts of the crew's file"
        tabs={[
          { key: "people", name: "People" },
          { key: "fit", name: "Fit today" },
          { key: "papers", name: "Licences and exemptions" },
        ]}
      />
      {tab === "people" && <People />}
      {tab === "fit" && <FitToday />}
      {tab === "papers" && <Papers />}
    </>
  );
}

function People() {
  const q = usePeople();
  const may = useMay();
  const [open, setOpen] = useState<"add" | Person | null>(null);
  return (
    <>
      {may() && (
        <p className="d-print-none">
          <Button onClick={() => setOpen("add")}>Add a person</Button>
        </p>
      )}
      <QueryView query={q} what="the crew">
        {(d) => (
          <ScrollX label="People">
            <Table>
              <thead>
                <tr>
                  <th>Name</th>
                  <th>Roles</th>
                  <th>Certificate</th>
                  <th>Trained</th>
                  <th>May release</th>
                  {may() && <th>Change</th>}
                </tr>
              </thead>
              <tbody>
                {d.people.map((p) => (
                  <tr key={p.id}>
                    <td>
                      <Link to={`/crew/${p.id}`}>{p.name}</Link> <span className="soft">{p.login}</span>
                      {!p.active && <span className="soft"> · left the crew</span>}
                      {p.once !== "" && <span className="soft"> · has a one-time password</span>}
                    </td>
                    <td>{p.roles.join(", ")}</td>
                    <td className="fig">{p.certificate || <span className="soft">none</span>}</td>
                    <td className="fig">{p.trained_on ?? <span className="soft">not known</span>}</td>
                    <td>
                      <Standing p={p} />
                    </td>
                    {may() && (
                      <td>
                        <Button
                          size="sm"
                          variant="outline-primary"
                          onClick={() => setOpen(p)}
                          aria-label={`Change ${p.name}`}
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
      </QueryView>
      <Dialog
        title={open === "add" ? "Add a person" : open ? `Change ${open.name}` : ""}
        open={open !== null}
        onClose={() => setOpen(null)}
      >
        {open && (
          <PersonForm
            key={open === "add" ? "add" : open.id}
            p={open === "add" ? undefined : open}
            onDone={() => setOpen(null)}
          />
        )}
      </Dialog>
    </>
  );
}

export function Standing({ p }: { p: Person }) {
  if (!p.roles.includes("pilot")) return <span className="soft">not a pilot</span>;
  if (!p.certificate) return <VerdictText v="stop" text="no certificate on file" />;
  if (!p.trained_on) return <VerdictText v="stop" text="training date not known" />;
  if (!p.current) return <VerdictText v="stop" text={`was current through ${p.current_through}`} />;
  return <VerdictText v="clear" text={`current through ${p.current_through}`} />;
}

function VerdictText({ v, text }: { v: "clear" | "stop"; text: string }) {
  return (
    <>
      <VerdictMark verdict={v} /> {text}
    </>
  );
}

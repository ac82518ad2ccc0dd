import { wrote } from "../api/touched";
import { usePeople } from "../api/queries";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { DateField } from "../parts/DateField";
import { AreaField, CheckField, SelectField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { ScrollX } from "../parts/ScrollX";
import { Empty, Problem, QueryView } from "../parts/states";
import { serverNow } from "../parts/time";
import { heldWords } from "../flights/gate/rules";
import { counted } from "../parts/number";

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
              <p className="no-print">
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
                <table className="ledger paper">
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
                            <div className="evidence">
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
                </table>
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

function Holds({ p }: { p: Paper }) {
  const left = p.expires_on ? (Date.parse(p.expires_on) - serverNow()) / 86_400_000 : Infinity;
  if (!p.in_force)
    return (
      <>
        <VerdictMark verdict="stop" /> does not hold
      </>
    );
  if (left < 30)
    return (
      <>
        <VerdictMark verdict="watch" /> ends in {counted(Math.max(0, Math.ceil(left)), "day")}
      </>
    );
  return (
    <>
      <VerdictMark verdict="clear" /> holds
    </>
  );
}

interface PaperFormProps {
  p?: Paper;
  person?: string;
  kinds: Schemas["DocumentSort"][];
  people: Schemas["Person"][];
  onDone: () => void;
}

function PaperForm({ p, person, kinds, people, onDone }: PaperFormProps) {
  const qc = useQueryClient();
  const [id] = useState(() => p?.id ?? newId());
  const rules = useQuery({ queryKey: keys.rules, queryFn: () => ask(api.GET("/rules")) });
  const f = useDraftForm(p ? `paper-${p.id}-${p.version}` : `paper-new-${person ?? ""}`, {
    kind: (p?.kind ?? (person ? "night-training" : "insurance")) as Paper["kind"],
    person_id: p?.person_id ?? person ?? "",
    number: p?.number ?? "",
    issued_on: p?.issued_on ?? "",
    expires_on: p?.expires_on ?? "",
    conditions: p?.conditions ?? "",
    rules: Object.fromEntries((p?.rules ?? []).map((r) => [r, true])) as Record<string, boolean>,
  });
  const v = f.watch();
  const personal = kinds.find((k) => k.id === v.kind)?.of_person ?? false;
  const names = v.kind === "waiver" || v.kind === "heavy-exemption";
  const pack = rules.data?.packs.find((x) => x.name === rules.data.chosen);
  const named = (pack?.rules ?? []).filter((r) => r.waivable);
  const send = f.submit(async (x) => {
    await ask(
      api.PUT("/documents/{id}", {
        params: { path: { id } },
        body: {
          kind: x.kind,
          person_id: personal ? x.person_id || null : null,
          number: x.number,
          issued_on: x.issued_on || null,
          expires_on: x.expires_on || null,
          conditions: x.conditions,
          rules: names ? named.map((r) => r.id).filter((r) => x.rules[r]) : [],
          version: p?.version ?? 0,
        },
      }),
    );
    await wrote(qc, "documents");
    onDone();
  });
  const [error, setError] = useState<unknown>();
  const remove = async () => {
    try {
      await ask(api.DELETE("/documents/{id}", { params: { path: { id } } }));
      await wrote(qc, "documents");
      onDone();
    } catch (e) {
      setError(e);
    }
  };
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      {error !== undefined && <Problem error={error} />}
      <SelectField label="Kind" {...f.register("kind")} wrong={f.wrong("kind")}>
        {kinds
          .filter((k) => !person || k.of_person)
          .map((k) => (
            <option key={k.id} value={k.id}>
              {k.name}
            </option>
          ))}
      </SelectField>
      {personal && !person && (
        <SelectField
          label="Whose"
          value={v.person_id}
          onChange={(e) => f.setValue("person_id", e.target.value)}
          wrong={f.wrong("person_id")}
        >
          <option value="">Choose one</option>
          {people
            .filter((x) => x.active)
            .map((x) => (
              <option key={x.id} value={x.id}>
                {x.name}
              </option>
            ))}
        </SelectField>
      )}
      <TextField label="Number" maxLength={80} {...f.register("number")} wrong={f.wrong("number")} />
      <div className="two" style={{ gap: "0 1rem" }}>
        <DateField label="Issued on" {...f.register("issued_on")} wrong={f.wrong("issued_on")} />
        <DateField
          label="Ends on"
          {...f.register("expires_on")}
          wrong={f.wrong("expires_on")}
          hint="Empty: it does not end."
        />
      </div>
      {names && (
        <fieldset className="field">
          <legend className="fs-6 fw-semibold">Rules it names</legend>
          {f.wrong("rules") && (
            <div className="wrong" role="alert">
              {f.wrong("rules")}
            </div>
          )}
          {named.map((r) => (
            <CheckField
              key={r.id}
              label={`${r.citation}: ${r.statement}`}
              checked={v.rules[r.id] ?? false}
              onChange={(e) => f.setValue("rules", { ...v.rules, [r.id]: e.target.checked })}
            />
          ))}
        </fieldset>
      )}
      <AreaField
        label="Conditions"
        maxLength={1000}
        {...f.register("conditions")}
        wrong={f.wrong("conditions")}
      />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Save
      </Button>
      {p && (
        <Button variant="outline-primary" className="w-100 mt-2" onClick={() => void remove()}>
          Take it off the file
        </Button>
      )}
    </form>
  );
}

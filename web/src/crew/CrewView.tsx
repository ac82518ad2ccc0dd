import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay, useSession } from "../app/session";
import { Dialog } from "../parts/Dialog";
import { CheckField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { VerdictMark } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { ScrollX } from "../parts/ScrollX";
import { ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { FitToday } from "./FitToday";
import { Papers } from "./Papers";

type Person = Schemas["Person"];
const roles: [Schemas["Role"], string][] = [
  ["pilot", "Pilot: runs checks, releases, flies, logs"],
  ["crew", "Crew: runs checks together with a pilot"],
  ["technician", "Technician: parts, packs, defects, return to service"],
  ["chief", "Chief: all of it, people and profiles"],
  ["reader", "Reader: looks and exports"],
];

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
  const q = useQuery({ queryKey: keys.people, queryFn: () => ask(api.GET("/people")) });
  const may = useMay();
  const [open, setOpen] = useState<"add" | Person | null>(null);
  return (
    <>
      {may() && (
        <p className="no-print">
          <Button onClick={() => setOpen("add")}>Add a person</Button>
        </p>
      )}
      <QueryView query={q} what="the crew">
        {(d) => (
          <ScrollX label="People">
            <table className="ledger">
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
            </table>
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

export function PersonForm({ p, onDone }: { p?: Person; onDone: () => void }) {
  const qc = useQueryClient();
  const { person } = useSession();
  const [id] = useState(newId);
  const held = (r: Schemas["Role"]) => p?.roles.includes(r) ?? false;
  const f = useDraftForm(
    p ? `person-${p.id}-${p.version}` : "person-new",
    {
      name: p?.name ?? "",
      login: p?.login ?? "",
      roles: {
        pilot: held("pilot"),
        crew: held("crew"),
        technician: held("technician"),
        chief: held("chief"),
        reader: held("reader"),
      },
      certificate: p?.certificate ?? "",
      trained_on: p?.trained_on ?? "",
      active: p?.active ?? true,
      password: "",
      pin: "",
    },
    ["password", "pin"],
  );
  const send = f.submit(async (v) => {
    const common = {
      name: v.name,
      roles: roles.map(([r]) => r).filter((r) => v.roles[r]),
      certificate: v.certificate,
      trained_on: v.trained_on || null,
    };
    if (p)
      await ask(
        api.PUT("/people/{id}", {
          params: { path: { id: p.id } },
          body: {
            ...common,
            version: p.version,
            active: v.active,
            ...(v.password ? { password: v.password } : {}),
          },
        }),
      );
    else
      await ask(
        api.POST("/people", { body: { ...common, id, login: v.login, password: v.password, pin: v.pin } }),
      );
    await qc.invalidateQueries();
    onDone();
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <TextField label="Name" {...f.register("name")} wrong={f.wrong("name")} />
      {!p && (
        <TextField
          label="Sign-in name"
          autoCapitalize="none"
          {...f.register("login")}
          wrong={f.wrong("login")}
        />
      )}
      <fieldset>
        <legend className="fs-6 fw-semibold">Roles</legend>
        {f.wrong("roles") && (
          <div className="field">
            <div className="wrong" role="alert">
              {f.wrong("roles")}
            </div>
          </div>
        )}
        {roles.map(([r, label]) => (
          <CheckField key={r} label={label} {...f.register(`roles.${r}`)} />
        ))}
      </fieldset>
      <TextField
        label="Remote pilot certificate number"
        {...f.register("certificate")}
        wrong={f.wrong("certificate")}
      />
      <TextField
        label="Last recurrent training"
        type="date"
        {...f.register("trained_on")}
        wrong={f.wrong("trained_on")}
        hint="Current through the end of the 24th month after it."
      />
      <TextField
        label={p ? "New password, if it must be set" : "First password"}
        type="password"
        autoComplete="new-password"
        {...f.register("password")}
        wrong={f.wrong("password")}
        hint="At least 10 characters."
      />
      {!p && (
        <TextField
          label="First PIN for signatures"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          {...f.register("pin")}
          wrong={f.wrong("pin")}
          hint="4 to 12 digits; the person changes it in Set-up."
        />
      )}
      {p && p.id !== person.id && <CheckField label="Belongs to the crew" {...f.register("active")} />}
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        Save
      </Button>
    </form>
  );
}

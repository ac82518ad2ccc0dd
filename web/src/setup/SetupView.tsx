import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { useMay, useSession } from "../app/session";
import { UnitFields } from "../app/UnitFields";
import { Airframe } from "../drawings/Airframe";
import { useTypes } from "../fleet/FleetView";
import { BringIn } from "../parts/BringIn";
import { AreaField, CheckField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { useUnits } from "../parts/units";

/** What a crew sets once: types and checklists as files, the crew's units, one's own PIN and password. */
export function SetupView() {
  const may = useMay();
  return (
    <>
      <ViewHead title="Set-up">
        <Link className="btn btn-outline-primary" to="/rules">
          Rules
        </Link>
        <Link className="btn btn-outline-primary" to="/practices">
          Practices
        </Link>
        <Link className="btn btn-outline-primary" to="/cameras">
          Cameras
        </Link>
        <Link className="btn btn-outline-primary" to="/canopies">
          Survey heights
        </Link>
        <Link className="btn btn-outline-primary" to="/nozzles">
          Nozzles
        </Link>
        <Link className="btn btn-outline-primary" to="/labels">
          Labels to print
        </Link>
      </ViewHead>
      <div className="stack">
        <Types />
        <div className="two">
          {may() && <CrewForm />}
          <Own />
        </div>
        <Sheet title="For who builds on it">
          <p className="mb-0">
            <a href="/api/v1">The interface for other programs</a> ·{" "}
            <Link to="/parts">the pieces of this one</Link>
          </p>
        </Sheet>
      </div>
    </>
  );
}

function Types() {
  const types = useTypes();
  const may = useMay();
  const u = useUnits();
  return (
    <Sheet title="Aircraft types and their checklists">
      <p>
        A type says how it is laid out, what it may do, what it flies with and how long its parts last. Runs
        and flights keep the version they were made with.
      </p>
      <QueryView query={types} what="the types">
        {(d) => (
          <ScrollX label="Types">
            <table className="ledger">
              <thead>
                <tr>
                  <th>Plan</th>
                  <th>Type</th>
                  <th>Limits at flight height</th>
                  <th>Packs</th>
                  <th>Files</th>
                </tr>
              </thead>
              <tbody>
                {d.types.map((t) => (
                  <tr key={t.profile.key}>
                    <td style={{ width: 100 }}>
                      <Airframe type={t} height={72} label={`Plan of ${t.profile.name}`} />
                    </td>
                    <td>
                      <strong>{t.profile.name}</strong>{" "}
                      <span className="soft">version {t.profile.version}</span>
                      <div>{t.profile.work}</div>
                      {may() && (
                        <div>
                          <Link to={`/types/${t.profile.key}`}>Change</Link> ·{" "}
                          <Link to={`/types/${t.profile.key}?copy=1`}>Copy</Link>
                        </div>
                      )}
                    </td>
                    <td>
                      wind {u.show("speed", t.profile.limits.wind_ms)}, gusts{" "}
                      {u.show("speed", t.profile.limits.gust_ms)}
                      <div className="soft">
                        take-off mass {u.show("mass", t.profile.limits.takeoff_mass_kg)}
                      </div>
                    </td>
                    <td>
                      {t.profile.packs.count} × {t.profile.packs.cells} cells {t.profile.packs.chemistry},{" "}
                      {t.profile.packs.capacity_mah} mAh
                    </td>
                    <td>
                      <a href={`/api/v1/types/${t.profile.key}`} download={`${t.profile.key}.json`}>
                        type
                      </a>{" "}
                      ·{" "}
                      <a
                        href={`/api/v1/types/${t.profile.key}/checklist`}
                        download={`${t.profile.key}-checklist.json`}
                      >
                        checklist
                      </a>{" "}
                      (<Link to={`/checklists/${t.profile.key}`}>read and edit</Link>) ·{" "}
                      <a
                        href={`/api/v1/types/${t.profile.key}/programme`}
                        download={`${t.profile.key}-programme.json`}
                      >
                        programme
                      </a>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </ScrollX>
        )}
      </QueryView>
      {may() && (
        <div className="choice mt-3">
          <Link className="btn btn-outline-primary" to="/types/new">
            Begin a type
          </Link>
          <FileIn
            label="Bring in a type file"
            send={(b) => ask(api.POST("/types", { body: b as Schemas["TypeProfile"] }))}
          />
          <FileIn
            label="Bring in a maintenance programme"
            send={(b) =>
              ask(
                api.POST("/types/{key}/programme", {
                  params: { path: { key: (b as Schemas["Programme"]).type_key } },
                  body: b as Schemas["Programme"],
                }),
              )
            }
          />
          <FileIn
            label="Bring in a checklist file"
            send={(b) =>
              ask(
                api.POST("/types/{key}/checklist", {
                  params: { path: { key: (b as Schemas["Checklist"]).type } },
                  body: b as Schemas["Checklist"],
                }),
              )
            }
          />
        </div>
      )}
    </Sheet>
  );
}

function FileIn({ label, send }: { label: string; send: (body: unknown) => Promise<unknown> }) {
  return (
    <BringIn
      label={label}
      field={label}
      accept=".json,application/json"
      take={async (file) => {
        let body: unknown;
        try {
          body = JSON.parse(await file.text());
        } catch {
          throw new Error(`${file.name} is not a JSON file. Nothing was changed.`);
        }
        await send(body);
        return `${file.name} is in use from now on.`;
      }}
    />
  );
}

function CrewForm() {
  const qc = useQueryClient();
  const { crew } = useSession();
  const [saved, setSaved] = useState(false);
  const f = useDraftForm(`crew-${crew.version}`, {
    crew_name: crew.name,
    zone: crew.zone,
    tile_url: crew.tile_url,
    head_to: crew.head_to,
    keep_places: crew.keep_places,
    units: crew.units,
  });
  const send = f.submit(async ({ crew_name, zone, tile_url, head_to, keep_places, units }) => {
    setSaved(false);
    await ask(
      api.PUT("/crew", {
        body: {
          name: crew_name,
          zone,
          tile_url: tile_url.trim(),
          head_to,
          keep_places,
          version: crew.version,
          units,
        },
      }),
    );
    setSaved(true);
    await qc.invalidateQueries();
  });
  return (
    <Sheet title="The crew">
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Name of the crew" {...f.register("crew_name")} wrong={f.wrong("crew_name")} />
        <TextField label="Time zone" {...f.register("zone")} wrong={f.wrong("zone")} />
        <UnitFields value={f.watch("units")} onChange={(u) => f.setValue("units", u)} />
        <TextField
          label="Address of map pictures"
          placeholder="none: maps without a network"
          hint="Like https://host/{z}/{x}/{y}.png. Load the page again after a change; mind the terms of whoever offers them."
          maxLength={300}
          {...f.register("tile_url")}
          wrong={f.wrong("tile_url")}
        />
        <AreaField
          label="Send the newest head of the records to"
          hint="A mail address or file:name on each line, outside of whoever could change the database. How mails and files leave is set where the server runs."
          {...f.register("head_to")}
          wrong={f.wrong("head_to")}
        />
        <CheckField
          label="Photos keep where they were taken (else it is removed from them)"
          {...f.register("keep_places")}
        />
        {saved && <p role="status">Saved.</p>}
        <Button type="submit">Save</Button>
      </form>
    </Sheet>
  );
}

function Own() {
  const [saved, setSaved] = useState("");
  const pin = useDraftForm("own-pin", { password: "", pin: "" }, ["password", "pin"]);
  const pass = useDraftForm("own-password", { password: "", new_password: "" }, ["password", "new_password"]);
  const sendPin = pin.submit(async (v) => {
    await ask(api.PUT("/session/pin", { body: v }));
    setSaved("Your PIN is changed.");
    pin.reset({ password: "", pin: "" });
  });
  const sendPass = pass.submit(async (v) => {
    await ask(api.PUT("/session/password", { body: v }));
    setSaved("Your password is changed; other devices are signed out.");
    pass.reset({ password: "", new_password: "" });
  });
  return (
    <Sheet title="Your own PIN and password">
      {saved && <p role="status">{saved}</p>}
      <form onSubmit={sendPin} noValidate>
        {pin.root && <Problem error={new Error(pin.root)} />}
        <TextField
          label="Your password, to change the PIN"
          type="password"
          autoComplete="current-password"
          {...pin.register("password")}
          wrong={pin.wrong("password")}
        />
        <TextField
          label="New PIN"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          {...pin.register("pin")}
          wrong={pin.wrong("pin")}
        />
        <Button type="submit" variant="outline-primary">
          Change the PIN
        </Button>
      </form>
      <hr />
      <form onSubmit={sendPass} noValidate>
        {pass.root && <Problem error={new Error(pass.root)} />}
        <TextField
          label="Your password now"
          type="password"
          autoComplete="current-password"
          {...pass.register("password")}
          wrong={pass.wrong("password")}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          {...pass.register("new_password")}
          wrong={pass.wrong("new_password")}
        />
        <Button type="submit" variant="outline-primary">
          Change the password
        </Button>
      </form>
    </Sheet>
  );
}

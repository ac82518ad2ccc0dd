import { zodResolver } from "@hookform/resolvers/zod";
import { Button } from "react-bootstrap";
import { useSession } from "../parts/session";
import { UnitFields } from "./UnitFields";
import { AreaField, CheckField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useKeepCrew } from "./api";
import { crewForm } from "./model";

/** What holds for the whole crew: its name, zone, units, and where things go. */
export function CrewForm() {
  const { crew } = useSession();
  const keep = useKeepCrew();
  const f = useDraftForm(
    `crew-${crew.version}`,
    {
      crew_name: crew.name,
      zone: crew.zone,
      tile_url: crew.tile_url,
      head_to: crew.head_to,
      keep_places: crew.keep_places,
      units: crew.units,
    },
    [],
    zodResolver(crewForm),
    (field) => (field === "name" ? "crew_name" : field),
  );
  const send = f.submit(({ crew_name, ...v }) =>
    keep.mutateAsync({ ...v, name: crew_name, version: crew.version }),
  );
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
        {keep.isSuccess && <p role="status">Saved.</p>}
        <Button type="submit" disabled={keep.isPending}>
          Save
        </Button>
      </form>
    </Sheet>
  );
}

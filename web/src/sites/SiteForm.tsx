import { useSites } from "../api/queries";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, NumberField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PlaceField } from "../parts/PlaceField";
import { showPlace } from "../parts/place";
import { Problem } from "../parts/states";
import { useDraw, useKeepSite } from "./api";
import { beginning, siteForm } from "./model";

export interface SiteFormProps {
  /** The site that is changed; without it a new one is begun. */
  head?: Schemas["SiteHead"];
  open: boolean;
  onClose: () => void;
  onSaved: (id: string) => void;
}

/** Name, place and note of a site. */
export function SiteForm({ head, open, onClose, onSaved }: SiteFormProps) {
  const chief = useMay()();
  const [fresh] = useState(newId);
  const id = head?.id ?? fresh;
  const sites = useSites();
  const keep = useKeepSite(head !== undefined);
  const draw = useDraw();
  const [drawn] = useState<[string, string]>(() => [newId(), newId()]);
  const f = useDraftForm(
    `site-${head ? `${head.id}-${head.version}` : "new"}`,
    {
      name: head?.name ?? "",
      place: head ? showPlace(head) : "",
      elevation: head ? String(head.elevation_m ?? "") : "",
      note: head?.note ?? "",
      practice: head?.practice ?? false,
      begin: false,
    },
    [],
    zodResolver(siteForm),
    (field) => (field === "lat" || field === "lon" ? "place" : field === "elevation_m" ? "elevation" : field),
  );
  const save = f.submit(async ({ place, elevation, begin, ...v }) => {
    await keep.mutateAsync({ ...v, ...place, id, elevation_m: elevation, version: head?.version ?? 0 });
    if (begin) await draw.mutateAsync({ id, features: beginning(place, drawn) });
    onSaved(id);
  });
  return (
    <Dialog title={head ? `Change ${head.name}` : "New site"} open={open} onClose={onClose}>
      <form noValidate onSubmit={save}>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Name" {...f.register("name")} wrong={f.wrong("name")} />
        <PlaceField
          label="Place"
          text={f.watch("place")}
          {...f.register("place")}
          wrong={f.wrong("place")}
          near={(sites.data?.sites ?? []).filter((s) => s.id !== id)}
          onPlace={(t) => f.setValue("place", t, { shouldDirty: true })}
        />
        <NumberField
          label="Elevation of the ground"
          unit="m"
          hint="Where nobody knows it, leave it out: the terrain says it once there is one."
          {...f.register("elevation")}
          wrong={f.wrong("elevation")}
        />
        <AreaField label="Note" rows={2} {...f.register("note")} wrong={f.wrong("note")} />
        {!head && (
          <CheckField
            label="Begin its map: we take off there, and fly over a square of 100 m round it"
            {...f.register("begin")}
          />
        )}
        {chief && (
          <CheckField
            label="A base or practice site: practice and check flights are flown here"
            {...f.register("practice")}
          />
        )}
        <Button type="submit" disabled={keep.isPending || draw.isPending}>
          {head ? "Save" : "Begin the site file"}
        </Button>
      </form>
    </Dialog>
  );
}

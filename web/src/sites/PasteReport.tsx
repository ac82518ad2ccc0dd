import { useState } from "react";
import { zodResolver } from "@hookform/resolvers/zod";
import { useDraftForm } from "../parts/form";
import { reportForm } from "./handReadings";
import { useAddWeather } from "./api";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField, NumberField } from "../parts/Field";
import { Problem } from "../parts/states";
import type { Ground } from "./WeatherPanel";

export interface DialogProps {
  site: string;
  ground: string;
  open: boolean;
  onClose: () => void;
}

/** A report as it was sent, taken on file with where its station stands. */
export function PasteReport({ site, ground, open, onClose }: DialogProps) {
  const addWeather = useAddWeather();
  const f = useDraftForm(
    `report-${site}`,
    { report: "", station_m: "", station_km: "" },
    [],
    zodResolver(reportForm),
  );
  const [id, setId] = useState(newId); // kept over repeated tries, so that one report is one
  const save = f.submit(async (v) => {
    await addWeather.mutateAsync({ id: site, body: { ...v, id, ground: ground as Ground } });
    setId(newId());
    f.reset({ report: "", station_m: "", station_km: "" });
    onClose();
  });
  return (
    <Dialog title="Paste a report" open={open} onClose={onClose}>
      <form onSubmit={save} noValidate>
        <AreaField
          label="METAR or SPECI"
          rows={3}
          hint="As it comes, from METAR or the four letters of the station to the end"
          {...f.register("report")}
          wrong={f.wrong("report")}
        />
        <NumberField
          label="Elevation of the station"
          unit="m"
          {...f.register("station_m")}
          wrong={f.wrong("station_m")}
          hint="The cloud base counts from there; empty: not known"
        />
        <NumberField
          label="The station is away from the site"
          unit="km"
          {...f.register("station_km")}
          wrong={f.wrong("station_km")}
          hint="Far away it says little about the air here; empty: not known"
        />
        {f.root && <Problem error={new Error(f.root)} />}
        <Button type="submit" disabled={f.watch("report").trim() === "" || f.formState.isSubmitting}>
          Put it on file
        </Button>
      </form>
    </Dialog>
  );
}

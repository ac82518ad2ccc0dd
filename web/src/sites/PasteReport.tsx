import { useAddWeather } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField, NumberField } from "../parts/Field";
import { parseInRange } from "../parts/number";
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
  const [text, setText] = useState("");
  const [station, setStation] = useState("");
  const [far, setFar] = useState("");
  const [wrong, setWrong] = useState<{ station?: string; far?: string }>({});
  const [error, setError] = useState<unknown>();
  const save = async () => {
    const e = parseInRange(station, -500, 6000, "m");
    const km = parseInRange(far, 0, 2000, "km");
    const bad = {
      station: !e.ok && !e.empty ? e.sentence : undefined,
      far: !km.ok && !km.empty ? km.sentence : undefined,
    };
    setWrong(bad);
    if (bad.station || bad.far) return;
    setError(undefined);
    try {
      await addWeather.mutateAsync({
        id: site,
        body: {
          id: newId(),
          ground: ground as Ground,
          report: text,
          station_m: e.ok ? e.value : undefined,
          station_km: km.ok ? km.value : undefined,
        },
      });
      setText("");
      onClose();
    } catch (x) {
      setError(x);
    }
  };
  return (
    <Dialog title="Paste a report" open={open} onClose={onClose}>
      <AreaField
        label="METAR or SPECI"
        rows={3}
        value={text}
        hint="As it comes, from METAR or the four letters of the station to the end"
        onChange={(e) => setText(e.target.value)}
      />
      <NumberField
        label="Elevation of the station"
        unit="m"
        value={station}
        wrong={wrong.station}
        hint="The cloud base counts from there; empty: not known"
        onChange={(e) => setStation(e.target.value)}
      />
      <NumberField
        label="The station is away from the site"
        unit="km"
        value={far}
        wrong={wrong.far}
        hint="Far away it says little about the air here; empty: not known"
        onChange={(e) => setFar(e.target.value)}
      />
      {error !== undefined && <Problem error={error} />}
      <Button onClick={() => void save()} disabled={text.trim() === ""}>
        Put it on file
      </Button>
    </Dialog>
  );
}

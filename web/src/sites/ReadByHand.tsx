import { useAddWeather } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { CheckField, NumberField, SelectField } from "../parts/Field";
import { Problem } from "../parts/states";
import { serverNow } from "../parts/time";
import type { DialogProps } from "./PasteReport";
import type { Ground } from "./WeatherPanel";
import { seen, readHand, readings, byEye } from "./handReadings";

/** The air as it is measured and seen on the spot; what stays empty is not known. */
export function ReadByHand({ site, ground, open, onClose }: DialogProps) {
  const addWeather = useAddWeather();
  const [text, setText] = useState<Record<string, string>>({ wind_height_m: "2" });
  const [id, setId] = useState(newId); // kept over repeated tries, so that one reading is one
  const [cloudless, setCloudless] = useState(false);
  const [hazards, setHazards] = useState<string[]>([]);
  const [none, setNone] = useState(false);
  const [beaufort, setBeaufort] = useState("");
  const [wrong, setWrong] = useState<Partial<Record<string, string>>>({});
  const [error, setError] = useState<unknown>();
  const save = async () => {
    const { values: v, wrong: bad } = readHand(text);
    setWrong(bad);
    if (Object.keys(bad).length > 0) return;
    setError(undefined);
    const { visibility_km, cloud_base_ft, wind_height_m, ...rest } = v;
    try {
      await addWeather.mutateAsync({
        id: site,
        body: {
          id,
          ground: ground as Ground,
          hand: {
            ...rest,
            at: new Date(serverNow()).toISOString(),
            ground: ground as Ground,
            wind_height_m: wind_height_m ?? 2,
            visibility_m: visibility_km == null ? null : visibility_km * 1000,
            beaufort: beaufort === "" ? undefined : Number(beaufort),
            cloud_base_ft: cloudless || cloud_base_ft == null ? null : Math.round(cloud_base_ft),
            cloud_known: cloudless || cloud_base_ft != null,
            clear_sky: cloudless ? true : null,
            hazards,
            weather_known: none || hazards.length > 0,
          },
        },
      });
      setId(newId());
      onClose();
    } catch (x) {
      setError(x);
    }
  };
  return (
    <Dialog title="Read by hand" open={open} onClose={onClose}>
      <p className="soft">What was not measured stays empty: it is then not known, and says so.</p>
      <SelectField
        label="Wind by eye, where nothing measures it"
        value={beaufort}
        onChange={(e) => {
          setBeaufort(e.target.value);
          if (e.target.value !== "") setText({ ...text, wind_ms: "", gust_ms: "" });
        }}
      >
        <option value="">measured, or not known</option>
        {byEye.map((sign, i) => (
          <option key={i} value={i}>
            Beaufort {i}: {sign}
          </option>
        ))}
      </SelectField>
      <div className="row g-2">
        {readings.map(([k, label, unit]) => (
          <div key={k} className="col-6">
            <NumberField
              label={label}
              unit={unit}
              value={text[k] ?? ""}
              wrong={wrong[k]}
              disabled={beaufort !== "" && (k === "wind_ms" || k === "gust_ms" || k === "wind_height_m")}
              onChange={(e) => setText({ ...text, [k]: e.target.value })}
            />
          </div>
        ))}
      </div>
      <CheckField
        label="No cloud at all"
        checked={cloudless}
        onChange={(e) => setCloudless(e.target.checked)}
      />
      <fieldset className="mb-2">
        <legend className="h3">Seen here or coming</legend>
        {seen.map((h) => (
          <CheckField
            key={h}
            label={h}
            checked={hazards.includes(h)}
            onChange={(e) => {
              setHazards(e.target.checked ? [...hazards, h] : hazards.filter((x) => x !== h));
              setNone(false);
            }}
          />
        ))}
        <CheckField
          label="Looked all round: none of these"
          checked={none}
          onChange={(e) => {
            setNone(e.target.checked);
            setHazards([]);
          }}
        />
      </fieldset>
      {error !== undefined && <Problem error={error} />}
      <Button onClick={() => void save()}>Put it on file</Button>
    </Dialog>
  );
}

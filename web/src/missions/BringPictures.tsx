import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useAddress } from "../parts/address";
import { AreaField, NumberField, SelectField } from "../parts/Field";
import { FileKey } from "../parts/FileKey";
import { parseNumber } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { Busy, Problem } from "../parts/states";
import {
  picturesOfAircraft,
  picturesOfList,
  useFlown,
  useLook,
  type After,
  type Flight,
  type Plan,
} from "./api";
import { readPictures } from "./pictures";
import { Taken } from "./Taken";

export interface BringPicturesProps {
  p: Plan;
  f: Flight;
  /** What they show, before anything is kept; undefined: they were left. */
  onLooked: (t: Schemas["PicturesTaken"] | undefined) => void;
}

/** Takes the pictures of a flight in: from the aircraft, from a list, or from their own tags. */
export function BringPictures({ p, f, onLooked }: BringPicturesProps) {
  const [id] = useState(newId);
  const [shots, setShots] = useState<Schemas["PictureShot"][]>();
  const [reading, setReading] = useState<{ done: number; all: number }>();
  const [error, setError] = useState<unknown>();
  const [running, setRunning] = useState("");
  const [shake, setShake] = useState("");
  const [offset, setOffset] = useState("");
  const [, go] = useAddress();
  const look = useLook(p.job_id, p.aircraft_id, f.number);
  const flown = useFlown(p.job_id, p.aircraft_id, f.number);
  const after = (pictures: Schemas["PictureShot"][], clock = offset): After => {
    const minutes = parseNumber(clock);
    return {
      id,
      pictures,
      running: running === "" ? null : running === "yes",
      shake,
      offset_s: minutes.ok ? minutes.value * 60 : 0,
    };
  };
  const take = async (read: () => Promise<Schemas["PictureShot"][]>, clock = offset) => {
    setError(undefined);
    try {
      const all = await read();
      setShots(all);
      onLooked(await look.mutateAsync(after(all, clock)));
    } catch (e) {
      setError(e);
    }
    setReading(undefined);
  };
  const fromTags = (files: File[]) =>
    take(() => {
      setReading({ done: 0, all: files.length });
      return readPictures(files, (done) => setReading({ done, all: files.length }));
    });
  const keep = () =>
    flown.mutate(after(shots ?? []), {
      onSuccess: () => {
        onLooked(undefined);
        go({ flight: String(f.number) }); // the next one is not what was just put on record
      },
    });
  return (
    <Sheet title={`Pictures of flight ${f.number}`}>
      {error !== undefined && <Problem error={error} />}
      {flown.error && <Problem error={flown.error} />}
      <div className="d-flex gap-2 flex-wrap">
        {p.link && (
          <Button
            variant="outline-primary"
            onClick={() =>
              void take(async () => (await picturesOfAircraft(p.job_id, p.aircraft_id)).pictures)
            }
          >
            As the aircraft lists them
          </Button>
        )}
        <FileKey
          label="A list, CSV"
          accept=".csv"
          onFiles={([file]) =>
            file && void take(async () => (await picturesOfList(p.job_id, p.aircraft_id, file)).pictures)
          }
        />
        <FileKey
          label="The pictures themselves"
          accept="image/*,.jpg,.jpeg,.tif,.tiff,.dng"
          multiple
          onFiles={(files) => void fromTags(files)}
        />
      </div>
      <p className="soft mt-2">
        Of pictures only place and time are read, on this device: they stay where they are. A list has the
        columns name, latitude, longitude, time.
      </p>
      {reading && (
        <Busy
          what={`${reading.done} of ${reading.all} pictures are read`}
          share={reading.done / Math.max(reading.all, 1)}
        />
      )}
      {look.isPending && <Busy what="Holding them against the plan …" />}
      {shots && look.data && (
        <Taken
          t={look.data}
          survey={p.kind === "survey"}
          onClock={(minutes) => {
            setOffset(String(minutes));
            void take(async () => shots, String(minutes));
          }}
        />
      )}
      {shots && (
        <div className="form">
          <p role="status">
            <strong>{shots.length} pictures</strong> are here; nothing is kept yet.
          </p>
          <SelectField
            label="Was the camera still running at landing?"
            value={running}
            onChange={(e) => setRunning(e.target.value)}
          >
            <option value="">nobody looked</option>
            <option value="yes">yes</option>
            <option value="no">no</option>
          </SelectField>
          <NumberField
            label="Camera clock is behind by"
            unit="min"
            hint="Where its clock is off; ahead is less than 0."
            value={offset}
            onChange={(e) => setOffset(e.target.value)}
          />
          <AreaField
            label="Shake, noise or blur, if any was seen"
            maxLength={500}
            value={shake}
            onChange={(e) => setShake(e.target.value)}
          />
          <div className="d-flex gap-2 flex-wrap">
            <Button variant="outline-primary" onClick={() => void take(async () => shots)}>
              Look again
            </Button>
            <Button disabled={flown.isPending} onClick={keep}>
              {flown.isPending ? "Putting on record…" : `Put flight ${f.number} on record as flown`}
            </Button>
          </div>
        </div>
      )}
    </Sheet>
  );
}

import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useAddress } from "../parts/address";
import { FileKey } from "../parts/FileKey";
import { Sheet } from "../parts/Sheet";
import { Busy, Problem } from "../parts/states";
import { AfterFields } from "./AfterFields";
import {
  picturesOfAircraft,
  picturesOfList,
  useFlown,
  useLook,
  type After,
  type Flight,
  type Plan,
} from "./api";
import { offsetWrong, sent, type Said } from "./model";
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
  const [said, setSaid] = useState<Said>({ running: "", shake: "", offset: "" });
  const [, go] = useAddress();
  const look = useLook(p.job_id, p.aircraft_id, f.number);
  const flown = useFlown(p.job_id, p.aircraft_id, f.number);
  const after = (pictures: Schemas["PictureShot"][], clock?: string): After => ({
    id,
    pictures,
    ...sent({ ...said, offset: clock ?? said.offset }),
  });
  const take = async (read: () => Promise<Schemas["PictureShot"][]>, clock?: string) => {
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
            setSaid({ ...said, offset: String(minutes) });
            void take(async () => shots, String(minutes));
          }}
        />
      )}
      {shots && (
        <div className="form">
          <p role="status">
            <strong>{shots.length} pictures</strong> are here; nothing is kept yet.
          </p>
          <AfterFields said={said} onSaid={(more) => setSaid({ ...said, ...more })} />
          <div className="d-flex gap-2 flex-wrap">
            <Button
              variant="outline-primary"
              disabled={!!offsetWrong(said)}
              onClick={() => void take(async () => shots)}
            >
              Look again
            </Button>
            <Button disabled={flown.isPending || !!offsetWrong(said)} onClick={keep}>
              {flown.isPending ? "Putting on record…" : `Put flight ${f.number} on record as flown`}
            </Button>
          </div>
        </div>
      )}
    </Sheet>
  );
}

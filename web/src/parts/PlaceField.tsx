import { lazy, Suspense, useState } from "react";
import { Button } from "react-bootstrap";
import { TextField, type TextFieldProps } from "./Field";
import type { NamedPlace } from "./PickMap";
import { placeWords, readPlace, showPlace } from "./place";

const PickMap = lazy(() => import("./PickMap"));

export interface PlaceFieldProps extends TextFieldProps {
  /** Takes the place where this device is, or that was pressed on the map. */
  onPlace: (text: string) => void;
  /** What stands in the field. */
  text: string;
  /** Places that are known, for a map to press on. */
  near: NamedPlace[];
}

const usual = "Latitude, longitude: 46.31, -119.70 or 46°18'36\"N 119°42'00\"W.";

/** A place: pasted, typed in any of the usual ways, pressed on the map, or where one stands. */
export function PlaceField({ onPlace, text, near, ...rest }: PlaceFieldProps) {
  const read = readPlace(text);
  const [said, setSaid] = useState("");
  const [map, setMap] = useState(false);
  const here = () => {
    setSaid("Asking this device where it is …");
    navigator.geolocation.getCurrentPosition(
      (p) => {
        onPlace(showPlace({ lat: p.coords.latitude, lon: p.coords.longitude }));
        setSaid(`Where this device is, within ${Math.round(p.coords.accuracy)} m.`);
      },
      () => setSaid("This device does not say where it is. Type the place, or paste it."),
      { enableHighAccuracy: true, timeout: 20_000 },
    );
  };
  return (
    <div className="place-field">
      <TextField
        placeholder="46.31, -119.70"
        hint={[read.ok ? `${placeWords(read.place)}.` : usual, said].filter(Boolean).join(" ")}
        autoComplete="off"
        {...rest}
      />
      <div className="d-flex flex-wrap gap-2 mb-2">
        {"geolocation" in navigator && (
          <Button variant="outline-primary" onClick={here}>
            Where I stand
          </Button>
        )}
        <Button variant="outline-primary" aria-expanded={map} onClick={() => setMap(!map)}>
          {map ? "Close the map" : "On the map"}
        </Button>
      </div>
      {map && (
        <Suspense fallback={<p className="soft">Opening the map …</p>}>
          <PickMap
            near={near}
            place={read.ok ? read.place : undefined}
            onPick={(t) => {
              onPlace(t);
              setSaid("As pressed on the map.");
            }}
          />
        </Suspense>
      )}
    </div>
  );
}

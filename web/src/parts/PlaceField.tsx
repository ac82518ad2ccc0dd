import { useState } from "react";
import { Button } from "react-bootstrap";
import { TextField, type TextFieldProps } from "./Field";
import { placeWords, readPlace, showPlace } from "./place";

export interface PlaceFieldProps extends TextFieldProps {
  /** Takes the place where this device is. */
  onHere: (text: string) => void;
  /** What stands in the field. */
  text: string;
}

const usual = "Latitude, longitude: 46.31, -119.70 or 46°18'36\"N 119°42'00\"W.";

/** A place: pasted, typed in any of the usual ways, or where one stands. */
export function PlaceField({ onHere, text, ...rest }: PlaceFieldProps) {
  const read = readPlace(text);
  const [said, setSaid] = useState("");
  const here = () => {
    setSaid("Asking this device where it is …");
    navigator.geolocation.getCurrentPosition(
      (p) => {
        onHere(showPlace({ lat: p.coords.latitude, lon: p.coords.longitude }));
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
      {"geolocation" in navigator && (
        <Button variant="outline-primary" onClick={here}>
          Where I stand
        </Button>
      )}
    </div>
  );
}

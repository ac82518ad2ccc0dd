import { useNavigate } from "react-router";
import { ScanKey } from "../parts/ScanKey";

/** Reads a label with the camera and opens what carries it. */
export function ReadLabel() {
  const go = useNavigate();
  return (
    <ScanKey
      label="Read a label"
      onCode={(code) => {
        void go(`/l/${encodeURIComponent(code)}`);
        return undefined;
      }}
    />
  );
}

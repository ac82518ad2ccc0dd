import { Button } from "react-bootstrap";
import { Thumb } from "./Thumb";

export interface KeepBarProps {
  /** The first fault of the form. */
  wrong?: string;
  changed: boolean;
  busy: boolean;
  onBack: () => void;
}

/** Keeps a plan that was changed, or goes back to what is kept; under the thumb. */
export function KeepBar({ wrong, changed, busy, onBack }: KeepBarProps) {
  return (
    <Thumb>
      {wrong && (
        <div className="judged stop" role="alert">
          {wrong}
        </div>
      )}
      <div className="keys d-flex gap-2">
        {changed && (
          <Button variant="outline-primary" onClick={onBack}>
            Back to what is kept
          </Button>
        )}
        <Button type="submit" className="btn-big" disabled={busy}>
          {busy ? "Keeping…" : "Keep this plan"}
        </Button>
      </div>
    </Thumb>
  );
}

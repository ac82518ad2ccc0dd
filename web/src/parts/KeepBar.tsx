import { Button } from "react-bootstrap";

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
    <div className="thumb">
      {wrong && (
        <div className="judged stop" role="alert">
          {wrong}
        </div>
      )}
      <div className="keys">
        {changed && (
          <Button variant="outline-primary" onClick={onBack}>
            Back to what is kept
          </Button>
        )}
        <Button type="submit" className="btn-big" disabled={busy}>
          {busy ? "Keeping…" : "Keep this plan"}
        </Button>
      </div>
    </div>
  );
}

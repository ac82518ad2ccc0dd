import { Button } from "react-bootstrap";
import { eventWords, grounds, type EventKind } from "./model";

const shown: EventKind[] = [
  "warning",
  "gust",
  "bird",
  "person",
  "link-loss",
  "takeover",
  "vibration",
  "hard-landing",
  "contact",
];

/** One key for each thing that happens in the air. */
export function EventKeys({ onPress }: { onPress: (k: EventKind) => void }) {
  return (
    <div className="events mb-3">
      {shown.map((k) => (
        <Button
          key={k}
          variant={grounds(k) ? "outline-danger" : "outline-primary"}
          onClick={() => onPress(k)}
        >
          {eventWords[k]}
        </Button>
      ))}
    </div>
  );
}

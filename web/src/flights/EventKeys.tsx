import { Button, Col, Row } from "react-bootstrap";
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
    <Row xs={3} lg={5} className="g-2 mb-3">
      {shown.map((k) => (
        <Col key={k}>
          <Button
            className="event-key w-100 h-100 px-1"
            variant={grounds(k) ? "outline-danger" : "outline-primary"}
            onClick={() => onPress(k)}
          >
            {eventWords[k]}
          </Button>
        </Col>
      ))}
    </Row>
  );
}

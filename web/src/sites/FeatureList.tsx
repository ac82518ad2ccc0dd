import { ListGroup } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { VerdictMark, worst } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Empty } from "../parts/states";
import { heightWords, kindName, kinds, stands } from "./kinds";

/** Everything on the map, by kind; a press opens it. */
export function FeatureList({ s, onSelect }: { s: Schemas["Site"]; onSelect: (id: string) => void }) {
  if (s.features.length === 0)
    return (
      <Empty>
        The map is empty. Choose what to draw above it and press on the map, or bring in a file: first where
        you take off, then the area, then everything that stands there.
      </Empty>
    );
  return (
    <Sheet title="On the map">
      <ListGroup variant="flush" className="mb-2">
        {kinds
          .flatMap((k) => s.features.filter((f) => f.feature.kind === k.kind))
          .map((f) => (
            <ListGroup.Item
              key={f.feature.id}
              action
              type="button"
              onClick={() => onSelect(f.feature.id)}
              className="d-flex flex-wrap justify-content-between align-items-baseline gap-3"
            >
              <span>
                <strong>{f.feature.name || kindName(f.feature.kind)}</strong>{" "}
                <span className="soft">{kindName(f.feature.kind).toLowerCase()}</span>
              </span>
              <span className={stands(f.feature.kind) ? "fig" : "soft"}>
                {stands(f.feature.kind) ? heightWords(f.feature) : f.feature.what}
              </span>
              {f.feature.kind === "take-off" && (
                <VerdictMark verdict={worst(f.findings.map((j) => j.verdict))} />
              )}
            </ListGroup.Item>
          ))}
      </ListGroup>
    </Sheet>
  );
}

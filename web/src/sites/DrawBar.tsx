import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { type Feature, type Kind, kindName, kinds, least, type Shape } from "./kinds";
import type { Draft } from "./useDrawing";

interface DrawBarProps {
  draft?: Draft;
  onDraft: (d: Draft | undefined) => void;
  onFinish: (d: Draft) => void;
  /** The selected area, in which holes can be drawn. */
  area?: Feature;
  onFill: () => void;
  onLook: () => void;
}

/** Chooses what is drawn, and leads through its corners. */
export function DrawBar({ draft, onDraft, onFinish, area, onFill, onLook }: DrawBarProps) {
  const [kind, setKind] = useState<Kind>("take-off");
  const [shape, setShape] = useState<Shape>("point");
  const shapes = kinds.find((k) => k.kind === kind)?.shapes ?? ["point"];
  const now = shapes.includes(shape) ? shape : (shapes[0] ?? "point");
  if (draft)
    return (
      <div key="drawing" className="d-flex flex-wrap align-items-center gap-2 tap" role="status">
        <span>
          {draft.look
            ? `Press on the map along the line: ${draft.places.length} so far, at least 2.`
            : draft.shape === "point"
              ? `Press on the map where the ${kindName(draft.kind).toLowerCase()} is.`
              : `Press on the map, corner by corner${draft.hole ? " of the hole" : ""}: ${draft.places.length} so far, at least ${least[draft.shape]}.`}
        </span>
        <Button disabled={draft.places.length < least[draft.shape]} onClick={() => onFinish(draft)}>
          Done
        </Button>
        <Button
          variant="outline-primary"
          disabled={draft.places.length === 0}
          onClick={() => onDraft({ ...draft, places: draft.places.slice(0, -1) })}
        >
          Last one back
        </Button>
        <Button variant="outline-primary" onClick={() => onDraft(undefined)}>
          Leave it
        </Button>
      </div>
    );
  return (
    <div key="choosing" className="d-flex flex-wrap align-items-center gap-2 tap d-print-none">
      <Form.Select
        className="w-auto"
        aria-label="What to draw"
        value={kind}
        onChange={(e) => setKind(e.target.value as Kind)}
      >
        {kinds.map((k) => (
          <option key={k.kind} value={k.kind}>
            {k.name}
          </option>
        ))}
      </Form.Select>
      {shapes.length > 1 && (
        <Form.Select
          className="w-auto"
          aria-label="As"
          value={now}
          onChange={(e) => setShape(e.target.value as Shape)}
        >
          {shapes.map((k) => (
            <option key={k} value={k}>
              as {k === "area" ? "an" : "a"} {k}
            </option>
          ))}
        </Form.Select>
      )}
      <Button onClick={() => onDraft({ kind, shape: now, places: [] })}>Draw it</Button>
      <Button variant="outline-primary" onClick={onLook}>
        Heights along a line
      </Button>
      {area && (
        <Button
          variant="outline-primary"
          onClick={() => onDraft({ kind: area.kind, shape: "area", places: [], hole: true })}
        >
          Draw a hole in it
        </Button>
      )}
      {area?.holes && area.holes.length > 0 && (
        <Button variant="outline-primary" onClick={onFill}>
          Fill the last hole
        </Button>
      )}
    </div>
  );
}

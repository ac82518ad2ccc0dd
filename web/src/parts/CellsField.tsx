import { Wrong } from "./Field";
import { tiles } from "./columns";
import { Form } from "react-bootstrap";
import { useId, type ClipboardEvent, type KeyboardEvent } from "react";

export interface CellsFieldProps {
  label: string;
  count: number;
  values: string[];
  onChange: (v: string[]) => void;
  wrong?: string;
  unit?: string;
  name?: (i: number) => string;
  autoFocus?: boolean;
}

/** Enter goes to the next box; in the last one it goes on, as in every form. */
function onward(e: KeyboardEvent<HTMLInputElement>) {
  if (e.key !== "Enter") return;
  const boxes = [...e.currentTarget.closest(".cells")!.querySelectorAll("input")];
  const next = boxes[boxes.indexOf(e.currentTarget) + 1];
  if (!next) return;
  e.preventDefault();
  next.focus();
  next.select();
}

/** One small field per cell or motor; a row of numbers can be pasted into the first. */
export function CellsField({
  label,
  count,
  values,
  onChange,
  wrong,
  unit = "mV or V",
  name = (i) => `Cell ${i + 1}`,
  autoFocus,
}: CellsFieldProps) {
  const id = useId();
  const put = (i: number, text: string) =>
    onChange(Array.from({ length: count }, (_, k) => (k === i ? text : (values[k] ?? ""))));
  const paste = (i: number) => (e: ClipboardEvent) => {
    const many = e.clipboardData
      .getData("text")
      .trim()
      .split(/[\s;]+/);
    if (many.length < 2) return;
    e.preventDefault();
    onChange(
      Array.from({ length: count }, (_, k) =>
        k >= i && k - i < many.length ? many[k - i]! : (values[k] ?? ""),
      ),
    );
  };
  return (
    <fieldset className="field" aria-describedby={wrong ? `${id}-wrong` : undefined}>
      <legend className="fs-6 fw-semibold mb-1">
        {label} <span className="soft fw-normal">({unit}; a row of numbers can be pasted)</span>
      </legend>
      <div className="cells tiles gap-2" style={tiles(104)}>
        {Array.from({ length: count }, (_, i) => (
          <div key={i}>
            <Form.Label htmlFor={`${id}-${i}`} className="m-0 small fw-normal">
              {name(i)}
            </Form.Label>
            <Form.Control
              className="fig px-2"
              id={`${id}-${i}`}
              inputMode="decimal"
              autoComplete="off"
              enterKeyHint={i < count - 1 ? "next" : "done"}
              autoFocus={autoFocus && i === 0}
              value={values[i] ?? ""}
              onKeyDown={onward}
              onChange={(e) => put(i, e.target.value)}
              onPaste={paste(i)}
            />
          </div>
        ))}
      </div>
      <Wrong id={`${id}-wrong`}>{wrong}</Wrong>
    </fieldset>
  );
}

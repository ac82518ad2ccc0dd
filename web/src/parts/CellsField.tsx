import { useId, type ClipboardEvent } from "react";
import { parseNumber } from "./number";

/** Reads cell voltages as typed: millivolts, or volts under 10, which are turned into millivolts. All empty is none. */
export function readCells(texts: string[]): { ok: true; mv: number[] } | { ok: false; sentence: string } {
  if (texts.every((t) => t.trim() === "")) return { ok: true, mv: [] };
  const mv: number[] = [];
  for (let i = 0; i < texts.length; i++) {
    const p = parseNumber(texts[i] ?? "");
    if (!p.ok) return { ok: false, sentence: `Cell ${i + 1}: ${p.empty ? "enter a value." : p.sentence}` };
    const v = Math.round(p.value < 10 ? p.value * 1000 : p.value);
    if (v < 500 || v > 5000)
      return { ok: false, sentence: `Cell ${i + 1} must be between 500 and 5000 mV (or 0.5 and 5 V).` };
    mv.push(v);
  }
  return { ok: true, mv };
}

export interface CellsFieldProps {
  label: string;
  count: number;
  values: string[];
  onChange: (v: string[]) => void;
  wrong?: string;
  unit?: string;
  name?: (i: number) => string;
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
      <div className="cells">
        {Array.from({ length: count }, (_, i) => (
          <div key={i}>
            <label htmlFor={`${id}-${i}`}>{name(i)}</label>
            <input
              id={`${id}-${i}`}
              className="form-control"
              inputMode="decimal"
              autoComplete="off"
              value={values[i] ?? ""}
              onChange={(e) => put(i, e.target.value)}
              onPaste={paste(i)}
            />
          </div>
        ))}
      </div>
      {wrong && (
        <div className="wrong" id={`${id}-wrong`} role="alert">
          {wrong}
        </div>
      )}
    </fieldset>
  );
}

import {
  Children,
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from "react";
import { Form } from "react-bootstrap";

interface Common {
  label: string;
  hint?: ReactNode;
  wrong?: string;
}

function Frame({ id, label, hint, wrong, children }: Common & { id: string; children: ReactNode }) {
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      {children}
      {hint && (
        <div className="hint" id={`${id}-hint`}>
          {hint}
        </div>
      )}
      {wrong && (
        <div className="wrong" id={`${id}-wrong`} role="alert">
          {wrong}
        </div>
      )}
    </div>
  );
}

function described(id: string, hint: unknown, wrong: unknown): string | undefined {
  return [hint && `${id}-hint`, wrong && `${id}-wrong`].filter(Boolean).join(" ") || undefined;
}

export type TextFieldProps = Common & InputHTMLAttributes<HTMLInputElement>;

export function TextField({ label, hint, wrong, ...rest }: TextFieldProps) {
  const auto = useId();
  const id = rest.id ?? auto;
  return (
    <Frame id={id} label={label} hint={hint} wrong={wrong}>
      <input
        {...rest}
        id={id}
        className={`form-control${wrong ? " is-invalid" : ""}`}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={described(id, hint, wrong)}
      />
    </Frame>
  );
}

export type NumberFieldProps = TextFieldProps & { unit: string };

/** A number with its unit; takes a decimal point or comma. */
export function NumberField({ label, hint, wrong, unit, ...rest }: NumberFieldProps) {
  const auto = useId();
  const id = rest.id ?? auto;
  return (
    <Frame id={id} label={label} hint={hint} wrong={wrong}>
      <div className="with-unit">
        <input
          {...rest}
          id={id}
          inputMode="decimal"
          autoComplete="off"
          className={`form-control${wrong ? " is-invalid" : ""}`}
          aria-invalid={wrong ? true : undefined}
          aria-describedby={described(id, hint, wrong)}
        />
        {unit && <span className="unit">{unit}</span>}
      </div>
    </Frame>
  );
}

export type AreaFieldProps = Common & TextareaHTMLAttributes<HTMLTextAreaElement>;

export function AreaField({ label, hint, wrong, ...rest }: AreaFieldProps) {
  const auto = useId();
  const id = rest.id ?? auto;
  return (
    <Frame id={id} label={label} hint={hint} wrong={wrong}>
      <textarea
        rows={3}
        {...rest}
        id={id}
        className={`form-control${wrong ? " is-invalid" : ""}`}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={described(id, hint, wrong)}
      />
    </Frame>
  );
}

export type SelectFieldProps = Common & SelectHTMLAttributes<HTMLSelectElement>;

export function SelectField({ label, hint, wrong, children, ...rest }: SelectFieldProps) {
  const auto = useId();
  const id = rest.id ?? auto;
  return (
    <Frame id={id} label={label} hint={hint} wrong={wrong}>
      <select
        // Options that come later than the value: a new element takes the value again.
        key={Children.toArray(children).length}
        {...rest}
        id={id}
        className={`form-select${wrong ? " is-invalid" : ""}`}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={described(id, hint, wrong)}
      >
        {children}
      </select>
    </Frame>
  );
}

export interface CheckFieldProps extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  wrong?: string;
}

export function CheckField({ label, wrong, ...rest }: CheckFieldProps) {
  const auto = useId();
  const id = rest.id ?? auto;
  return (
    <div className="field">
      <Form.Check type="checkbox" id={id}>
        <Form.Check.Input {...rest} type="checkbox" id={id} isInvalid={Boolean(wrong)} />
        <Form.Check.Label htmlFor={id} className="ms-2 pt-1">
          {label}
        </Form.Check.Label>
      </Form.Check>
      {wrong && (
        <div className="wrong" role="alert">
          {wrong}
        </div>
      )}
    </div>
  );
}

import {
  Children,
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from "react";
import { Form, InputGroup, type FormControlProps, type FormSelectProps } from "react-bootstrap";

interface Common {
  label: string;
  hint?: ReactNode;
  wrong?: string;
  /** It stands beside others: no room below it, and no hint. */
  bare?: boolean;
}

/** What is wrong with what was entered. */
export function Wrong({ id, children }: { id?: string; children?: ReactNode }) {
  if (!children) return null;
  return (
    <Form.Control.Feedback type="invalid" className="d-block fw-semibold" id={id} role="alert">
      {children}
    </Form.Control.Feedback>
  );
}

function Frame({ id, label, hint, wrong, bare, children }: Common & { id: string; children: ReactNode }) {
  return (
    <Form.Group controlId={id} className={bare ? undefined : "field"}>
      <Form.Label>{label}</Form.Label>
      {children}
      {hint && !bare && (
        <Form.Text as="div" id={`${id}-hint`}>
          {hint}
        </Form.Text>
      )}
      <Wrong id={`${id}-wrong`}>{wrong}</Wrong>
    </Form.Group>
  );
}

function described(id: string, hint: unknown, wrong: unknown): string | undefined {
  return [hint && `${id}-hint`, wrong && `${id}-wrong`].filter(Boolean).join(" ") || undefined;
}

export type TextFieldProps = Common & InputHTMLAttributes<HTMLInputElement>;

export function TextField({ label, hint, wrong, bare, ...rest }: TextFieldProps) {
  const auto = useId();
  const id = rest.id ?? auto;
  return (
    <Frame id={id} label={label} hint={hint} wrong={wrong} bare={bare}>
      <Form.Control
        {...(rest as FormControlProps)}
        isInvalid={Boolean(wrong)}
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
      <InputGroup hasValidation>
        <Form.Control
          {...(rest as FormControlProps)}
          inputMode="decimal"
          autoComplete="off"
          className="fig"
          isInvalid={Boolean(wrong)}
          aria-invalid={wrong ? true : undefined}
          aria-describedby={described(id, hint, wrong)}
        />
        {unit && <InputGroup.Text>{unit}</InputGroup.Text>}
      </InputGroup>
    </Frame>
  );
}

export type AreaFieldProps = Common & TextareaHTMLAttributes<HTMLTextAreaElement>;

export function AreaField({ label, hint, wrong, ...rest }: AreaFieldProps) {
  const auto = useId();
  const id = rest.id ?? auto;
  return (
    <Frame id={id} label={label} hint={hint} wrong={wrong}>
      <Form.Control
        as="textarea"
        rows={3}
        {...(rest as FormControlProps)}
        isInvalid={Boolean(wrong)}
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
      <Form.Select
        // Options that come later than the value: a new element takes the value again.
        key={Children.toArray(children).length}
        {...(rest as FormSelectProps)}
        isInvalid={Boolean(wrong)}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={described(id, hint, wrong)}
      >
        {children}
      </Form.Select>
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
        <Form.Check.Label htmlFor={id} className="ms-2 py-2">
          {label}
        </Form.Check.Label>
      </Form.Check>
      <Wrong>{wrong}</Wrong>
    </div>
  );
}

import type { ReactNode } from "react";
import { Form, type FormCheckProps } from "react-bootstrap";

export interface TickFieldProps extends Omit<FormCheckProps, "label" | "type"> {
  type?: "checkbox" | "radio";
  label: ReactNode;
}

/** A tick, or one of several answers, with its words; pressed anywhere on the line. */
export function TickField({ label, ...rest }: TickFieldProps) {
  return (
    <label className="d-flex gap-2 align-items-start py-2 tap">
      <Form.Check.Input className="flex-shrink-0 m-0" {...rest} />
      <span>{label}</span>
    </label>
  );
}

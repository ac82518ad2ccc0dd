import { Wrong } from "./Field";
import { useId } from "react";
import { Button, Form } from "react-bootstrap";

export interface PinPadProps {
  value: string;
  onChange: (pin: string) => void;
  statement: string;
  who: string;
  wrong?: string;
}

/** The signature: what is signed, by whom, and the signer's own PIN. */
export function PinPad({ value, onChange, statement, who, wrong }: PinPadProps) {
  const id = useId();
  return (
    <div className="field">
      <p className="mb-2">
        “{statement}” <span className="soft">— {who}</span>
      </p>
      <Form.Label htmlFor={id}>Your own PIN</Form.Label>
      <Form.Control
        id={id}
        className="mb-2 fig"
        isInvalid={Boolean(wrong)}
        type="password"
        inputMode="numeric"
        autoComplete="off"
        maxLength={12}
        value={value}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        onChange={(e) => onChange(e.target.value.replace(/\D/g, ""))}
        style={{ maxWidth: 290, fontSize: "1.4rem", letterSpacing: "0.3em" }}
      />
      <Wrong id={`${id}-wrong`}>{wrong}</Wrong>
      <div
        className="d-grid gap-2 mt-2 d-print-none"
        style={{ gridTemplateColumns: "repeat(3, minmax(64px, 90px))" }}
      >
        {["1", "2", "3", "4", "5", "6", "7", "8", "9"].map((d) => (
          <Button key={d} variant="outline-primary" onClick={() => onChange((value + d).slice(0, 12))}>
            {d}
          </Button>
        ))}
        <Button variant="outline-primary" onClick={() => onChange("")} aria-label="Clear the PIN">
          Clear
        </Button>
        <Button variant="outline-primary" onClick={() => onChange((value + "0").slice(0, 12))}>
          0
        </Button>
        <Button
          variant="outline-primary"
          onClick={() => onChange(value.slice(0, -1))}
          aria-label="Delete the last digit"
        >
          ←
        </Button>
      </div>
    </div>
  );
}

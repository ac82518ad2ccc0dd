import { Form } from "react-bootstrap";
import { useEffect, useState } from "react";

export interface SearchFieldProps {
  label: string;
  placeholder: string;
  value: string;
  onChange: (text: string) => void;
}

/** A search that shows every key at once and passes the words on when the typing pauses. */
export function SearchField({ label, placeholder, value, onChange }: SearchFieldProps) {
  const [text, setText] = useState(value);
  useEffect(() => {
    if (text === value) return;
    const timer = setTimeout(() => onChange(text), 150);
    return () => clearTimeout(timer);
  }, [text, value, onChange]);
  return (
    <Form.Control
      type="search"
      style={{ width: 230, maxWidth: "100%" }}
      placeholder={placeholder}
      aria-label={label}
      value={text}
      onChange={(e) => setText(e.target.value)}
    />
  );
}

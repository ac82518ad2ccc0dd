import { Form } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { CheckField } from "../parts/Field";

type Sign = Schemas["FlightSign"];

const signWords: Record<Sign, string> = {
  vibration: "It shook",
  "odd-sound": "It sounded odd",
  "picture-shake": "Pictures shook or were blurred",
  drift: "It did not hold still",
};

/** What was heard, seen or felt: each becomes a defect that somebody looks at before the next flight. */
export function SignFields({ value, onChange }: { value: Sign[]; onChange: (v: Sign[]) => void }) {
  return (
    <fieldset className="field">
      <legend className="fs-6 fw-semibold">Heard, seen or felt in flight</legend>
      {Object.entries(signWords).map(([k, words]) => (
        <CheckField
          key={k}
          label={words}
          checked={value.includes(k as Sign)}
          onChange={(e) => onChange(e.target.checked ? [...value, k as Sign] : value.filter((s) => s !== k))}
        />
      ))}
      <Form.Text as="div">Each is looked at by the technician before it flies again.</Form.Text>
    </fieldset>
  );
}

import { useState } from "react";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { SelectField } from "../parts/Field";
import { SiteForm } from "../sites/SiteForm";

export interface SiteChoiceProps {
  sites: Schemas["SiteHead"][];
  value: string;
  wrong?: string;
  onChange: (id: string) => void;
}

/** The site of a job: one that is on file, or a new one, begun here. */
export function SiteChoice({ sites, value, wrong, onChange }: SiteChoiceProps) {
  const [fresh, setFresh] = useState(false);
  return (
    <div>
      <SelectField label="Site" value={value} onChange={(e) => onChange(e.target.value)} wrong={wrong}>
        <option value="">Choose one</option>
        {sites.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </SelectField>
      <Button variant="link" className="p-0 mb-3" onClick={() => setFresh(true)}>
        It is a new site
      </Button>
      {fresh && (
        // What is sent in it is not sent in the form around.
        <div onSubmit={(e) => e.stopPropagation()}>
          <SiteForm
            open
            onClose={() => setFresh(false)}
            onSaved={(id) => {
              onChange(id);
              setFresh(false);
            }}
          />
        </div>
      )}
    </div>
  );
}

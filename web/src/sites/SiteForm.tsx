import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { useMay } from "../app/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, NumberField, TextField } from "../parts/Field";
import { parseInRange } from "../parts/number";
import { Problem } from "../parts/states";

const fields: [string, string, string, number, number][] = [
  ["lat", "Latitude", "°", -85, 85],
  ["lon", "Longitude", "°", -180, 180],
  ["elevation", "Elevation of the ground", "m", -500, 6000],
];

export interface SiteFormProps {
  /** The site that is changed; without it a new one is begun. */
  head?: Schemas["SiteHead"];
  open: boolean;
  onClose: () => void;
  onSaved: (id: string) => void;
}

/** Name, place and note of a site. */
export function SiteForm({ head, open, onClose, onSaved }: SiteFormProps) {
  const qc = useQueryClient();
  const chief = useMay()();
  const [fresh] = useState(newId);
  const id = head?.id ?? fresh;
  const [text, setText] = useState<Record<string, string>>(
    head
      ? {
          name: head.name,
          note: head.note,
          lat: String(head.lat),
          lon: String(head.lon),
          elevation: String(head.elevation_m),
        }
      : {},
  );
  const [practice, setPractice] = useState(head?.practice ?? false);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const [error, setError] = useState<unknown>();
  const put = (k: string, v: string) => setText({ ...text, [k]: v });
  const save = async () => {
    const bad: Record<string, string> = {};
    const v: Record<string, number> = {};
    for (const [k, , unit, min, max] of fields) {
      const e = parseInRange(text[k] ?? "", min, max, unit);
      if (e.ok) v[k] = e.value;
      else bad[k] = e.empty ? "Enter it." : e.sentence;
    }
    if (!text.name?.trim()) bad.name = "Enter what the site is called.";
    setWrong(bad);
    if (Object.keys(bad).length > 0) return;
    setError(undefined);
    try {
      const body = {
        id,
        name: text.name ?? "",
        note: text.note ?? "",
        lat: v.lat ?? 0,
        lon: v.lon ?? 0,
        elevation_m: v.elevation ?? 0,
        practice,
        version: head?.version ?? 0,
      };
      if (head) await ask(api.PUT("/sites/{id}", { params: { path: { id } }, body }));
      else await ask(api.POST("/sites", { body }));
      await qc.invalidateQueries({ queryKey: ["site"] });
      onSaved(id);
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Dialog title={head ? `Change ${head.name}` : "New site"} open={open} onClose={onClose}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <TextField
          label="Name"
          value={text.name ?? ""}
          wrong={wrong.name}
          maxLength={120}
          onChange={(e) => put("name", e.target.value)}
        />
        {fields.map(([k, label, unit]) => (
          <NumberField
            key={k}
            label={label}
            unit={unit}
            value={text[k] ?? ""}
            wrong={wrong[k]}
            onChange={(e) => put(k, e.target.value)}
          />
        ))}
        <AreaField
          label="Note"
          rows={2}
          value={text.note ?? ""}
          onChange={(e) => put("note", e.target.value)}
        />
        {chief && (
          <CheckField
            label="A base or practice site: practice and check flights are flown here"
            checked={practice}
            onChange={(e) => setPractice(e.target.checked)}
          />
        )}
        {error !== undefined && <Problem error={error} />}
        <Button type="submit">{head ? "Save" : "Begin the site file"}</Button>
      </form>
    </Dialog>
  );
}

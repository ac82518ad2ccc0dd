import { Wrong } from "./Field";
import { Form, Button } from "react-bootstrap";
import { useId, useState } from "react";
import { newId, ProblemError, type Schemas } from "../api/client";

/** Sends a picture as it is; the server tells its kind from its bytes. */
async function sendNow(file: File): Promise<string> {
  const r = await fetch(`/api/v1/photos?id=${newId()}`, {
    method: "POST",
    headers: { "content-type": "application/octet-stream" },
    body: file,
  });
  const body = (await r.json()) as Schemas["Photo"] | Schemas["Problem"];
  if (!r.ok) throw new ProblemError(body as Schemas["Problem"]);
  return (body as Schemas["Photo"]).id;
}

export interface PhotoFieldProps {
  photos: string[];
  onChange: (ids: string[]) => void;
  /** One picture alone. */
  one?: boolean;
  /** Hands a picture over and says its id; sent to the server by default. */
  send?: (file: File) => Promise<string>;
  /** Where a picture is shown from. */
  src?: (id: string) => string;
}

const onServer = (id: string) => `/api/v1/photos/${id}`;

/** Photos as evidence: taken with the device's camera or chosen from its files. */
export function PhotoField({ photos, onChange, one, send = sendNow, src = onServer }: PhotoFieldProps) {
  const id = useId();
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState("");
  const add = async (files: FileList | null) => {
    setBusy(true);
    setWrong("");
    const added: string[] = [];
    try {
      for (const f of files ?? []) added.push(await send(f));
    } catch (e) {
      setWrong(
        e instanceof ProblemError
          ? e.message
          : "The photo was not sent. Check the connection and add it again.",
      );
    }
    setBusy(false);
    if (added.length) onChange([...photos, ...added]);
  };
  return (
    <div className="field">
      <Form.Label htmlFor={id}>{one ? "The picture itself" : "Photos"}</Form.Label>
      <Form.Control
        id={id}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple={!one}
        disabled={busy}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        onChange={(e) => {
          void add((e.target as HTMLInputElement).files);
          e.target.value = "";
        }}
      />
      {busy && (
        <Form.Text as="div" role="status">
          Sending …
        </Form.Text>
      )}
      <Wrong id={`${id}-wrong`}>{wrong}</Wrong>
      {photos.length > 0 && (
        <div className="d-flex flex-wrap gap-2 mt-2">
          {photos.map((p, i) => (
            <span key={p}>
              <img className="border mw-100" height="84" src={src(p)} alt={`Photo ${i + 1}`} />
              <Button
                variant="outline-primary"
                size="sm"
                className="d-flex mt-1"
                onClick={() => onChange(photos.filter((x) => x !== p))}
              >
                Remove
              </Button>
            </span>
          ))}
        </div>
      )}
    </div>
  );
}

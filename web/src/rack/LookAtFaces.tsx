import { useLookAtPack } from "./api";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField, Wrong } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PhotoField } from "../parts/PhotoField";
import { Problem } from "../parts/states";

type Faces = Schemas["LookFaces"];

type Find = Faces["top"];

export const faces: (keyof Faces)[] = ["top", "bottom", "left", "right", "front", "back"];

const finds: [Find, string][] = [
  ["ok", "in order"],
  ["swollen", "swollen"],
  ["cracked", "cracked"],
  ["damaged", "damaged"],
  ["corroded", "contacts corroded or charred"],
];

/** What each face of a pack looks like. */
export function Look({ d, onClose }: { d: Schemas["PackDetail"]; onClose: () => void }) {
  const lookAtPack = useLookAtPack();
  const [id] = useState(newId);
  const f = useDraftForm(`look-${d.pack.id}`, {
    faces: {} as Partial<Faces>,
    note: "",
    photos: [] as string[],
  });
  const chosen = f.watch("faces");
  const odd = faces.some((k) => chosen[k] && chosen[k] !== "ok");
  const send = f.submit(async (v) => {
    const missing = faces.find((k) => !v.faces[k]);
    if (missing) {
      f.setError("faces", { message: `Say what the ${missing} face looks like.` });
      return;
    }
    await lookAtPack.mutateAsync({
      id: d.pack.id,
      body: { id, faces: v.faces as Faces, photos: v.photos, note: v.note },
    });
    onClose();
  });
  return (
    <Dialog title={`${d.pack.label}: all six faces`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>
          Lay it on a flat table; turn it round. Swelling, a crack, damage or charred contacts send it to
          quarantine at once.
        </p>
        <Button
          variant="outline-primary"
          className="mb-2"
          onClick={() =>
            f.setValue("faces", Object.fromEntries(faces.map((k) => [k, chosen[k] ?? "ok"])) as Faces)
          }
        >
          All that are left are in order
        </Button>
        {faces.map((k) => (
          <div className="field mb-2" key={k}>
            <label htmlFor={`face-${k}`}>{k.charAt(0).toUpperCase() + k.slice(1)}</label>
            <Form.Select
              id={`face-${k}`}
              value={chosen[k] ?? ""}
              onChange={(e) => f.setValue("faces", { ...chosen, [k]: e.target.value as Find })}
            >
              <option value="">not looked at yet</option>
              {finds.map(([v, words]) => (
                <option key={v} value={v}>
                  {words}
                </option>
              ))}
            </Form.Select>
          </div>
        ))}
        {f.wrong("faces") && (
          <div className="field">
            <Wrong>{f.wrong("faces")}</Wrong>
          </div>
        )}
        <AreaField
          label={odd ? "What was seen" : "Remarks, if any"}
          {...f.register("note")}
          wrong={f.wrong("note")}
        />
        <PhotoField photos={f.watch("photos")} onChange={(p) => f.setValue("photos", p)} />
        <Button
          type="submit"
          className="w-100"
          variant={odd ? "danger" : "primary"}
          disabled={f.formState.isSubmitting}
        >
          {odd ? "Put on record and quarantine it" : "Put on record"}
        </Button>
      </form>
    </Dialog>
  );
}

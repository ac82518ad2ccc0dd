import { Rows } from "../parts/Rows";
import { Photos } from "../parts/Photos";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { z } from "zod";
import { newId } from "../api/client";
import { useMay } from "../parts/session";
import { AreaField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PhotoField } from "../parts/PhotoField";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useAddFinding, useRemoveFinding, type Plan } from "./api";

const schema = z.object({
  picture: z.string().trim().min(1, "Name the picture that shows it.").max(200, "At most 200 characters."),
  place: z.string().trim().min(1, "Say where on it.").max(200, "At most 200 characters."),
  words: z.string().trim().min(1, "Say what is seen.").max(500, "At most 500 characters."),
  severity: z.enum(["note", "watch", "serious"]),
  photo: z.string(),
});
type Typed = z.input<typeof schema>;

const blank: Typed = { picture: "", place: "", words: "", severity: "watch", photo: "" };

/** What was found on the pictures: the report for the client. */
export function FindingsLeaf({ p }: { p: Plan }) {
  const may = useMay()("pilot", "crew");
  const zone = useZone();
  const back = useRemoveFinding(p.job_id, p.aircraft_id);
  const looks = p.wish.inspect?.look ?? [];
  return (
    <div className="two">
      <div className="vstack gap-3">
        <Sheet title="Found on the pictures">
          {back.error && <Problem error={back.error} />}
          {p.findings.length === 0 ? (
            <Empty>Nothing is on record yet.</Empty>
          ) : (
            <Rows cols="5rem minmax(0, 1fr) minmax(0, 10rem)">
              {p.findings.map((f) => (
                <ListGroup.Item as="li" key={f.id}>
                  <strong>{f.severity}</strong>
                  <div>
                    <strong>{f.place}:</strong> {f.words}
                    <div className="soft">
                      {f.by}, <span className="fig">{zone.both(f.at)}</span>
                    </div>
                    {may && (
                      <Button
                        variant="outline-primary"
                        size="sm"
                        className="mt-1 d-print-none"
                        onClick={() => back.mutate(f.id)}
                      >
                        Take back
                      </Button>
                    )}
                  </div>
                  <div>
                    {f.picture}
                    {f.photo && <Photos ids={[f.photo]} alt={() => `${f.picture}: ${f.words}`} />}
                  </div>
                </ListGroup.Item>
              ))}
            </Rows>
          )}
        </Sheet>
        {looks.length > 0 && (
          <Sheet title="What was to be looked at">
            <ul className="mb-0">
              {looks.map((l, i) => (
                <li key={i}>
                  {l.what}: {l.picture || <strong>no picture named yet</strong>}
                </li>
              ))}
            </ul>
          </Sheet>
        )}
      </div>
      {may && p.version > 0 && <Add key={p.findings.length} p={p} />}
    </div>
  );
}

function Add({ p }: { p: Plan }) {
  const [id] = useState(newId);
  const add = useAddFinding(p.job_id, p.aircraft_id);
  const f = useDraftForm<Typed, z.output<typeof schema>>(`finding-${p.id}`, blank, [], zodResolver(schema));
  const send = f.submit((v) => add.mutateAsync({ id, ...v, photo: v.photo || null }));
  const field = (name: keyof Typed) => ({ ...f.register(name), wrong: f.wrong(name) });
  return (
    <Sheet title="Put something on record">
      <form onSubmit={send} noValidate className="form">
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Picture" hint="The name of its file, like IMG_0012.jpg." {...field("picture")} />
        <PhotoField
          photos={[f.watch("photo")].filter(Boolean)}
          onChange={(all) => f.setValue("photo", all.at(-1) ?? "")}
          one
        />
        <TextField label="Where on it" {...field("place")} />
        <AreaField label="What is seen" {...field("words")} />
        <SelectField label="How bad" {...field("severity")}>
          <option value="note">note</option>
          <option value="watch">watch</option>
          <option value="serious">serious</option>
        </SelectField>
        <Button type="submit" disabled={add.isPending}>
          {add.isPending ? "Putting on record…" : "Put on record"}
        </Button>
      </form>
    </Sheet>
  );
}

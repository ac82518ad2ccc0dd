import "./defectPress";
import { zodResolver } from "@hookform/resolvers/zod";
import { Button } from "react-bootstrap";
import { z } from "zod";
import type { Schemas } from "../api/client";
import { newId } from "../api/client";
import { usePress } from "../outbox/hooks";
import { KeptPhotoField } from "../outbox/photos";
import { Dialog } from "../parts/Dialog";
import { AreaField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

const defectForm = z.object({
  station: z.string(),
  title: z.string().trim().min(3, "Say in a few words what is wrong.").max(120, "At most 120 characters."),
  note: z.string().max(2000, "At most 2000 characters."),
  severity: z.enum(["stop", "watch"]),
  photos: z.array(z.string()),
});

export interface RaiseDefectProps {
  open: boolean;
  onClose: () => void;
  aircraft: string;
  stations: Schemas["Station"][];
  station: string;
  title?: string;
  walkround?: string;
}

/** A defect that somebody has seen; it is kept on the device and stands for everybody as soon as the server has it. */
export function RaiseDefect(props: RaiseDefectProps) {
  const { open, onClose, aircraft, stations, station, title, walkround } = props;
  const press = usePress();
  const blank: z.infer<typeof defectForm> = {
    station,
    title: title ?? "",
    note: "",
    severity: "stop",
    photos: [],
  };
  const f = useDraftForm(`defect-${aircraft}-${station}`, blank, [], zodResolver(defectForm));
  const send = f.submit(async (v) => {
    const body = { ...v, id: newId(), aircraft_id: aircraft, walkround_id: walkround ?? null };
    press<Schemas["NewDefect"]>("defect.raise", aircraft, body);
    f.reset(blank);
    onClose();
  });
  return (
    <Dialog title="Raise a defect" open={open} onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="Where" {...f.register("station")} wrong={f.wrong("station")}>
          {stations.map((s) => (
            <option key={s.id} value={s.id}>
              {s.label}
            </option>
          ))}
        </SelectField>
        <TextField label="What is wrong, in a few words" {...f.register("title")} wrong={f.wrong("title")} />
        <AreaField label="More about it" {...f.register("note")} wrong={f.wrong("note")} />
        <SelectField label="May it fly with this?" {...f.register("severity")} wrong={f.wrong("severity")}>
          <option value="stop">No: stop</option>
          <option value="watch">Yes, with care: watch</option>
        </SelectField>
        <KeptPhotoField photos={f.watch("photos")} onChange={(p) => f.setValue("photos", p)} />
        <Button type="submit" className="w-100">
          Raise the defect
        </Button>
      </form>
    </Dialog>
  );
}

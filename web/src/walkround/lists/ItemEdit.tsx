import { zodResolver } from "@hookform/resolvers/zod";
import { Button } from "react-bootstrap";
import { useForm } from "react-hook-form";
import type { Schemas } from "../../api/client";
import { Dialog } from "../../parts/Dialog";
import { AreaField, CheckField, SelectField, TextField } from "../../parts/Field";
import { itemForm, itemOf, typedOf, withDefect, type ItemTyped } from "./form";
import { KindFields } from "./KindFields";
import type { Item } from "./model";

const kinds: Record<string, string> = {
  look: "look",
  group: "look at several things at once",
  alike: "all motors alike, or which not",
  reading: "one number against a band",
  count: "count",
  choice: "one of some answers",
  timer: "timer",
  photo: "photo",
  computed: "worked out by the gate",
  who: "one named person",
  poll: "go or no go, by name",
  cells: "cells of a pack",
  motors: "one number for each motor",
  set: "one number for each arm, nozzle or heading",
};

interface Props {
  entry: Schemas["TypeEntry"];
  item: Item;
  onSave: (it: Item) => void;
  onClose: () => void;
}

/** One item of a list, as its kind has it. */
export function ItemEdit({ entry, item, onSave, onClose }: Props) {
  const { register, handleSubmit, watch, formState } = useForm<ItemTyped>({
    resolver: zodResolver(itemForm),
    defaultValues: typedOf(item),
  });
  const kind = watch("kind");
  const wrong = (k: keyof ItemTyped) => formState.errors[k]?.message;
  return (
    <Dialog open wide title={item.id ? `Edit ${item.title}` : "A new item"} onClose={onClose}>
      <form noValidate onSubmit={(e) => void handleSubmit((f) => onSave(itemOf(f, item)))(e)}>
        <TextField label="What is looked at" {...register("title")} wrong={wrong("title")} />
        <div className="two">
          <SelectField label="Kind" {...register("kind")}>
            {Object.entries(kinds).map(([k, w]) => (
              <option key={k} value={k}>
                {w}
              </option>
            ))}
          </SelectField>
          <SelectField label="Station" {...register("station")}>
            {[...new Set([item.station, ...entry.stations.map((s) => s.id)])].map((s) => (
              <option key={s}>{s}</option>
            ))}
          </SelectField>
        </div>
        <AreaField label="How" {...register("how")} />
        <AreaField label="Why it matters" {...register("why")} />
        <AreaField label="What bad looks like" {...register("bad")} />
        <TextField label="What is done then" {...register("do")} />
        {withDefect.includes(kind) && (
          <SelectField label="A defect here means" {...register("defect")}>
            <option value="stop">stop</option>
            <option value="watch">watch</option>
          </SelectField>
        )}
        <KindFields kind={kind} register={register} wrong={wrong} />
        <AreaField
          label="Asked when, one condition a line; empty: always"
          hint="Like: night = yes, or: days-since-flight > 30. What is not known is asked."
          {...register("when")}
        />
        <CheckField label="In the turnaround too" {...register("short")} />
        <CheckField label="Once for each pack" {...register("per_pack")} />
        <CheckField label="Only told, bars nothing" {...register("advisory")} />
        <CheckField label="Passes with the day: no defect of the aircraft" {...register("passing")} />
        <TextField label="Id, never changed later" {...register("id")} wrong={wrong("id")} />
        <Button type="submit" className="w-100">
          Take it into the draft
        </Button>
      </form>
    </Dialog>
  );
}

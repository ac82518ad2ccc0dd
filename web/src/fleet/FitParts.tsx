import { useFitParts } from "./api";
import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { Dialog } from "../parts/Dialog";
import { CheckField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

type Detail = Schemas["AircraftDetail"];

export interface ActProps {
  open: boolean;
  onClose: () => void;
}

/** Fits parts, and says what becomes of those that come off. */
export function FitParts({ open, onClose, d, positions }: ActProps & { d: Detail; positions: string[] }) {
  const fitParts = useFitParts();
  const places = d.type.positions.filter((p) => positions.includes(p.id));
  const kind = places[0]?.kind ?? "part";
  const shelf = useQuery({ queryKey: keys.stock, queryFn: () => ask(api.GET("/stock")), enabled: open });
  const there =
    shelf.data?.lines.find((l) => l.kind === kind && l.type_key === d.type.profile.key)?.shelf ?? [];
  const list = useId();
  const [ids, setIds] = useState(() => places.map(newId));
  const f = useDraftForm(`fit-${d.aircraft.id}-${positions.join("-")}`, {
    serials: {} as Record<string, string>,
    source: "maker" as "maker" | "third-party",
    old: "discard" as "discard" | "shelf",
    cut_up: false,
    fits: "",
  });
  const send = f.submit(async (v) => {
    await fitParts.mutateAsync({
      id: d.aircraft.id,
      body: {
        source: v.source,
        old: v.old,
        cut_up: v.cut_up,
        fits: places.map((s, i) => ({
          part_id: ids[i]!,
          station: s.id,
          serial: (v.serials[s.id] ?? "").trim(),
        })),
      },
    });
    setIds(places.map(newId));
    f.reset({ serials: {}, source: "maker", old: "discard", cut_up: false, fits: "" });
    onClose();
  });
  return (
    <Dialog
      title={
        places.length > 1 ? `Replace all ${places.length} propellers` : `Fit: ${places[0]?.label ?? "a part"}`
      }
      open={open}
      onClose={onClose}
    >
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        {f.wrong("fits") && <Problem error={new Error(f.wrong("fits"))} />}
        {places.map((s) => (
          <TextField
            key={s.id}
            label={`Serial of the new ${s.kind.replace(/-/g, " ")} at ${s.label}`}
            list={list}
            {...f.register(`serials.${s.id}`)}
          />
        ))}
        <datalist id={list}>
          {there.map((p) => (
            <option key={p.id} value={p.serial}>
              {p.hours > 0 ? `on the shelf, ${p.hours.toFixed(1)} h` : "on the shelf, new"}
            </option>
          ))}
        </datalist>
        <SelectField
          label="Where the new parts are from"
          {...f.register("source")}
          wrong={f.wrong("source")}
          hint="A serial number that lies on the shelf is taken from there."
        >
          <option value="maker">The maker</option>
          <option value="third-party">A third party, approved by the crew</option>
        </SelectField>
        <SelectField label="What happens to the old ones" {...f.register("old")}>
          <option value="discard">Discarded</option>
          <option value="shelf">To the shelf, with their hours</option>
        </SelectField>
        {kind === "propeller" && f.watch("old") === "discard" && (
          <CheckField
            label="The old propellers are cut up, so that nobody fits them again"
            {...f.register("cut_up")}
            wrong={f.wrong("cut_up")}
          />
        )}
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Put on record
        </Button>
      </form>
    </Dialog>
  );
}

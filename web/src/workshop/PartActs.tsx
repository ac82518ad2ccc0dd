import { useRemovePart, useSwapPart } from "./api";
import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, SelectField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";

type Part = Schemas["PartDetail"];

/** Takes a part off its aircraft. */
export function TakeOff({ p, onClose }: { p: Part; onClose: () => void }) {
  const removePart = useRemovePart();
  const f = useDraftForm(`off-${p.id}`, {
    to: (p.aircraft_id ? "shelf" : "discard") as "shelf" | "discard",
    cut_up: false,
    reason: "",
  });
  const send = f.submit(async (v) => {
    await removePart.mutateAsync({ id: p.id, body: v });
    onClose();
  });
  const discards = f.watch("to") === "discard";
  return (
    <Dialog title={`${p.aircraft_id ? "Take off" : "Discard"} ${p.serial}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        {p.aircraft_id && (
          <SelectField label="It goes" {...f.register("to")}>
            <option value="shelf">to the shelf, with its hours</option>
            <option value="discard">away for good</option>
          </SelectField>
        )}
        {discards && p.kind === "propeller" && (
          <CheckField
            label="It is cut up, so that nobody fits it again"
            {...f.register("cut_up")}
            wrong={f.wrong("cut_up")}
          />
        )}
        <AreaField label="Why" {...f.register("reason")} wrong={f.wrong("reason")} />
        <Button type="submit" className="w-100" variant={discards ? "danger" : "primary"}>
          Put on record
        </Button>
      </form>
    </Dialog>
  );
}

/** Swaps two parts of one kind. */
export function Swap({ p, onClose }: { p: Part; onClose: () => void }) {
  const swapPart = useSwapPart();
  const q = useQuery({
    queryKey: keys.aircraft(p.aircraft_id!),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id: p.aircraft_id! } } })),
  });
  const f = useDraftForm(`swap-${p.id}`, { with: "" });
  const send = f.submit(async (v) => {
    if (!v.with) {
      f.setError("with", { message: "Choose the part it changes places with." });
      return;
    }
    await swapPart.mutateAsync({ id: p.id, body: v });
    onClose();
  });
  const others = q.data?.parts.filter((x) => x.kind === p.kind && x.id !== p.id) ?? [];
  return (
    <Dialog title={`Swap ${p.serial}`} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <p>Both take their hours along. A swap asks for a new walkround.</p>
        <SelectField label="It changes places with" {...f.register("with")} wrong={f.wrong("with")}>
          <option value="">Choose</option>
          {others.map((x) => (
            <option key={x.id} value={x.id}>
              {x.station_label}: {x.serial}
            </option>
          ))}
        </SelectField>
        <Button type="submit" className="w-100">
          Put on record
        </Button>
      </form>
    </Dialog>
  );
}

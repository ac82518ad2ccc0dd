import { zodResolver } from "@hookform/resolvers/zod";
import { shownQuantity } from "../parts/typed";
import { authorisationForm } from "./model";
import { useAskAuthorisation } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { MomentField } from "../parts/DateField";
import { NumberField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useUnits } from "../parts/units";

type Airspace = Schemas["Airspace"];
type Zone = Schemas["ZoneSeen"];

interface CallsProps {
  x: Schemas["Authorisation"];
  desk: boolean;
  onCall: (kind: "start" | "end", how: "desk" | "spoken") => void;
}

/** The calls that are due at start and end. */
export function Calls({ x, desk, onCall }: CallsProps) {
  if (!x.needs_calls) return null;
  const last = x.calls.at(-1)?.kind;
  const kind = last === "start" ? "end" : "start";
  return (
    <>
      {desk && (
        <Button size="sm" onClick={() => onCall(kind, "desk")}>
          Call the {kind}
        </Button>
      )}
      <Button size="sm" variant="outline-primary" onClick={() => onCall(kind, "spoken")}>
        {kind === "start" ? "Start" : "End"} was called by voice
      </Button>
    </>
  );
}

/** Asks for an authorisation of one zone. */
export function Wanted({
  site,
  a,
  zone,
  onDone,
}: {
  site: string;
  a: Airspace;
  zone: Zone;
  onDone: () => void;
}) {
  const askAuthorisation = useAskAuthorisation();
  const z = useZone();
  const u = useUnits();
  const [id] = useState(newId);
  const asks = a.desk && zone.source === "desk";
  const f = useDraftForm(
    `authorisation-${zone.id}`,
    {
      ceiling_m: shownQuantity(u, "length", 100, 0),
      from: z.local(a.from),
      to: z.local(new Date(Date.parse(a.from) + 4 * 3_600_000).toISOString()),
      number: "",
    },
    [],
    zodResolver(authorisationForm(u, z.zone)),
  );
  const send = f.submit(async (v) => {
    await askAuthorisation.mutateAsync({ id, body: { ...v, site_id: site, zone_id: zone.id } });
    onDone();
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <p>
        {asks
          ? "Without a number the airspace desk is asked; its answer comes by itself. With a number, what was granted by other ways goes on record."
          : "Enter what was granted, as it was granted."}
      </p>
      <NumberField
        label="Up to, above ground"
        unit={u.label("length")}
        {...f.register("ceiling_m")}
        wrong={f.wrong("ceiling_m")}
      />
      <div className="two" style={{ gap: "0 1rem" }}>
        <MomentField label="From" zone={z.zone} {...f.register("from")} wrong={f.wrong("from")} />
        <MomentField label="To" zone={z.zone} {...f.register("to")} wrong={f.wrong("to")} />
      </div>
      <TextField
        label={asks ? "Number, if it is granted already" : "Number"}
        maxLength={60}
        {...f.register("number")}
        wrong={f.wrong("number")}
      />
      <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
        {asks && !f.watch("number").trim() ? "Ask for it" : "Put it on record"}
      </Button>
    </form>
  );
}

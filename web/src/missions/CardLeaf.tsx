import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { Flag } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useFillCard, type Plan } from "./api";
import { cameraOf, cardForm, kelvins, typedCard, type TypedCard } from "./card";

/** The camera before a flight: exposure, filter, light, card, cap, and a picture that raises the counter. */
export function CardLeaf({ p }: { p: Plan }) {
  const may = useMay()("pilot", "crew");
  if (p.version === 0)
    return (
      <Sheet title="Camera card">
        <Empty>Keep a plan first: the card is held against it.</Empty>
      </Sheet>
    );
  return (
    <div className="two">
      <Filled p={p} />
      {may && <Fill key={p.card?.at} p={p} />}
    </div>
  );
}

function Filled({ p }: { p: Plan }) {
  const z = useZone();
  const c = p.card;
  return (
    <Sheet title="On record for this plan">
      {!c && <Empty>Nobody has filled the card in yet.</Empty>}
      {c && (
        <>
          <p>
            By {c.by}, <span className="fig">{z.both(c.at)}</span>: 1/{c.card.shutter} s, sensitivity{" "}
            {c.card.iso}, {c.card.kelvin} K,{" "}
            {c.card.filter_stop === 0 ? "no filter" : `${c.card.filter_stop} stops of filter`}
            {c.card.profile && `, profile ${c.card.profile}`}.
          </p>
          {c.findings.length === 0 && <p className="judged clear">Everything is in order.</p>}
          {c.findings.map((b, i) => (
            <div key={i} className={`judged ${b.verdict}`}>
              <Flag verdict={b.verdict} /> {b.sentence}
            </div>
          ))}
        </>
      )}
      <p className="soft mt-3 mb-0">
        Filters go on with the gimbal off. The card is formatted in the aircraft. For video the shutter is
        half of the time of a picture.
      </p>
    </Sheet>
  );
}

function Fill({ p }: { p: Plan }) {
  const [id] = useState(newId);
  const fill = useFillCard(p.job_id, p.aircraft_id);
  const f = useDraftForm<TypedCard, Schemas["CameraCard"]>(
    `card-${p.id}`,
    typedCard(p),
    [],
    zodResolver(cardForm(cameraOf(p))) as never, // what it asks depends on video
  );
  const send = f.submit((card) => fill.mutateAsync({ id, card }));
  const field = (name: keyof TypedCard) => ({ ...f.register(name), wrong: f.wrong(name) });
  const light = f.register("light");
  const asked = (name: "cap_off" | "formatted" | "gimbal_off", label: string) => (
    <SelectField label={label} {...field(name)}>
      <option value="">not looked at</option>
      <option value="yes">yes</option>
      <option value="no">no</option>
    </SelectField>
  );
  const video = f.watch("video");
  return (
    <Sheet title="Fill the card in">
      <form onSubmit={send} noValidate className="form">
        {f.root && <Problem error={new Error(f.root)} />}
        <div className="two">
          {asked("cap_off", "Lens cap is off")}
          {asked("formatted", "Card formatted in the aircraft")}
          <NumberField label="Free on the card" unit="GB" {...field("free_gb")} />
          <SelectField
            label="Light"
            {...light}
            onChange={(e) => {
              void light.onChange(e);
              f.setValue("kelvin", String(kelvins[e.target.value as keyof typeof kelvins]));
            }}
          >
            <option value="sun">sun</option>
            <option value="cloud">cloud</option>
            <option value="night">night</option>
          </SelectField>
          <NumberField label="White balance" unit="K" {...field("kelvin")} />
          <NumberField label="Shutter" unit="1/s" {...field("shutter")} />
          <NumberField label="Metered without a filter" unit="1/s" {...field("metered")} />
          <NumberField label="Filter fitted" unit="stops" {...field("filter_stop")} />
          {Number(f.watch("filter_stop").replace(",", ".")) > 0 &&
            asked("gimbal_off", "Gimbal off while fitting it")}
          <NumberField label="Sensitivity" unit="ISO" {...field("iso")} />
          <TextField label="Colour profile" {...field("profile")} />
          {video && <NumberField label="Pictures a second" unit="1/s" {...field("fps")} />}
          <NumberField label="Counter before the test picture" unit="" {...field("before")} />
          <NumberField label="Counter after it" unit="" {...field("after")} />
        </div>
        <CheckField label="Video" {...f.register("video")} />
        <Button type="submit" className="btn-big" disabled={fill.isPending}>
          {fill.isPending ? "Putting on record…" : "Put the card on record"}
        </Button>
      </form>
    </Sheet>
  );
}

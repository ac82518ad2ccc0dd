import { columns } from "../parts/columns";
import { tiles } from "../parts/columns";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { chemistries } from "../rack/form";
import { NumberField, SelectField, TextField, Wrong } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { EquipmentFields } from "./EquipmentFields";
import { FigureFields } from "./FigureFields";
import { LayoutFields } from "./LayoutFields";
import { LifeFields } from "./LifeFields";
import { TypePreview } from "./TypePreview";
import { limits, load, packs } from "./figures";
import { keyFor } from "./model";
import { useTypeForm, type TypeFormProps } from "./useTypeForm";

/** All that the program asks of a type of aircraft, with its plan as it is typed. */
export function TypeForm(p: TypeFormProps & { types: Schemas["TypeEntry"][] }) {
  const f = useTypeForm(p);
  const go = useNavigate();
  const [like, setLike] = useState(p.like);
  const kind = f.now.kind;
  const fits = f.trial.data?.like ?? [];
  const taken = fits.includes(like) ? like : (fits[0] ?? "");
  const send = f.submit(async () => {
    await f.add.mutateAsync({ profile: f.profile, like: p.isNew ? taken : "" });
    void go("/setup");
  });
  return (
    <form onSubmit={send} noValidate className="two" style={columns("minmax(0, 3fr) minmax(0, 2fr)")}>
      <div className="vstack gap-3">
        <Sheet title="What it is">
          <TextField
            label="Name of the type"
            {...f.register("name", {
              onChange: () => p.isNew && f.setValue("key", keyFor(f.getValues("name"))),
            })}
            wrong={f.said("name")}
          />
          <TextField label="What it is for" {...f.register("work")} wrong={f.said("work")} />
          {p.isNew && (
            <TextField
              label="Key of its files"
              hint="Small letters, digits and hyphens; it does not change any more."
              {...f.register("key")}
              wrong={f.said("key")}
            />
          )}
          <LayoutFields f={f} />
        </Sheet>
        <Sheet title="Limits, as the maker says">
          <FigureFields f={f} of={limits} kind={kind} />
        </Sheet>
        <Sheet title="Packs">
          <div className="tiles" style={tiles(200)}>
            <SelectField label="Chemistry" {...f.register("chemistry")} wrong={f.said("chemistry")}>
              {Object.keys(chemistries).map((c) => (
                <option key={c}>{c}</option>
              ))}
            </SelectField>
            <SelectField
              label="Charge is read from"
              {...f.register("percent_from")}
              wrong={f.said("percent_from")}
            >
              <option value="pack">the pack, which shows it</option>
              <option value="volts">volts at rest</option>
            </SelectField>
          </div>
          <FigureFields f={f} of={packs} kind={kind} />
        </Sheet>
        <Sheet title="Mass and tank">
          <FigureFields f={f} of={load} kind={kind} />
        </Sheet>
        <Sheet title="Sticks and power">
          <p className="soft">
            In words, as they are done. They differ between types, and may mean the opposite.
          </p>
          <TextField label="Motors start" {...f.register("start")} wrong={f.said("start")} />
          <TextField label="Motors stop" {...f.register("stop")} wrong={f.said("stop")} />
          <TextField
            label="Emergency stop"
            {...f.register("emergency_stop")}
            wrong={f.said("emergency_stop")}
          />
          <div className="tiles" style={tiles(200)}>
            <SelectField
              label="Switched on first"
              {...f.register("power_order")}
              wrong={f.said("power_order")}
            >
              <option value="">as the crew keeps it</option>
              <option value="controller-first">the controller</option>
              <option value="aircraft-first">the aircraft</option>
            </SelectField>
            <NumberField
              label="Range check at"
              unit="m"
              {...f.register("range_m")}
              wrong={f.said("range_m")}
            />
            <TextField
              label="with which power"
              {...f.register("range_power")}
              wrong={f.said("range_power")}
            />
          </div>
        </Sheet>
        <EquipmentFields f={f} />
        <LifeFields f={f} />
      </div>
      <TypePreview f={f} types={p.types} isNew={p.isNew} like={taken} onLike={setLike}>
        <Wrong>{f.first}</Wrong>
        <Button type="submit" className="w-100 btn-big" disabled={f.formState.isSubmitting}>
          {p.isNew ? "Keep the type" : `Keep as version ${p.version}`}
        </Button>
      </TypePreview>
    </form>
  );
}

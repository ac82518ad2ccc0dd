import type { UseFormReturn } from "react-hook-form";
import { CheckField, NumberField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import type { Day, Typed } from "./model";

export interface DayFieldsProps {
  form: UseFormReturn<Typed, unknown, Day>;
  /** The flights come from a plan. */
  planned: boolean;
}

type Asked = [keyof Typed & string, string, string];

const flights: Asked[] = [
  ["flights", "Flights", ""],
  ["minutes", "In the air, each", "min"],
  ["wh", "Takes, each", "Wh"],
  ["done", "Hectares, each", "ha"],
];
const things: Asked[] = [
  ["aircraft", "Aircraft", ""],
  ["sets", "Sets of packs", ""],
  ["per_set", "Packs in a set", ""],
  ["pack_wh", "Pack holds", "Wh"],
  ["charge_to", "Charged to", "%"],
  ["cool", "Cools", "min"],
  ["channels", "Charging channels", ""],
  ["channel_w", "Channel gives", "W"],
  ["generator_w", "Generator; 0: no limit", "W"],
  ["hands", "Hands", ""],
  ["swap", "Changing packs", "min"],
  ["fill_min", "Filling", "min"],
  ["hours", "The day has", "h"],
];

/** What there is for the day. */
export function DayFields({ form, planned }: DayFieldsProps) {
  const wrong = form.formState.errors;
  const field = ([name, label, unit]: Asked) => (
    <NumberField
      key={name}
      label={label}
      unit={unit}
      {...form.register(name, { onChange: () => void form.trigger(name) })}
      wrong={wrong[name]?.message}
    />
  );
  return (
    <div className="vstack gap-3">
      {!planned && (
        <Sheet title="The work">
          <div className="row row-cols-2 gx-3">{flights.map(field)}</div>
          <CheckField label="Filled before each flight" {...form.register("fill")} />
        </Sheet>
      )}
      <Sheet title="What there is">
        <div className="row row-cols-2 gx-3">{things.map(field)}</div>
      </Sheet>
    </div>
  );
}

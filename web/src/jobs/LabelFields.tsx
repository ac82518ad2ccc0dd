import type { UseFormRegister } from "react-hook-form";
import { NumberField, TextField } from "../parts/Field";
import { useUnits } from "../parts/units";
import type { JobTyped } from "./form";

interface Props {
  register: UseFormRegister<JobTyped>;
  wrong: (field: keyof JobTyped) => string | undefined;
}

/** What a spraying job says of its product, and what the label asks of the wind. */
export function LabelFields({ register, wrong }: Props) {
  const u = useUnits();
  const fields = [
    ["label_low", "Label: wind from", "speed", "usual practice"],
    ["label_high", "Label: wind to", "speed", "usual practice"],
    ["label_height", "Label: measured at", "length", `${Math.round(u.value("length", 2) * 10) / 10}`],
  ] as const;
  return (
    <>
      <TextField
        label="Product"
        maxLength={200}
        {...register("product")}
        wrong={wrong("product")}
        hint="As its label names it. The label decides on rate, wind, buffer and protection."
      />
      <div className="row row-cols-2 gx-3">
        {fields.map(([name, label, unit, placeholder]) => (
          <NumberField
            key={name}
            label={label}
            unit={u.label(unit)}
            placeholder={placeholder}
            {...register(name)}
            wrong={wrong(name)}
          />
        ))}
      </div>
    </>
  );
}

import { NumberField, SelectField } from "../parts/Field";
import { chemistries } from "./form";

type Name = "chemistry" | "cells" | "capacity_mah" | "cycles";

interface Props {
  register: (name: Name) => object;
  wrong: (name: Name) => string | undefined;
}

/** What a pack is: chemistry, cells, capacity, and what lies behind it. */
export function KindFields({ register, wrong }: Props) {
  return (
    <>
      <SelectField label="Chemistry" {...register("chemistry")} wrong={wrong("chemistry")}>
        {Object.entries(chemistries).map(([c, words]) => (
          <option key={c} value={c}>
            {words}
          </option>
        ))}
      </SelectField>
      <div className="two">
        <NumberField label="Cells in series" unit="cells" {...register("cells")} wrong={wrong("cells")} />
        <NumberField
          label="Rated capacity"
          unit="mAh"
          {...register("capacity_mah")}
          wrong={wrong("capacity_mah")}
        />
      </div>
      <NumberField label="Cycles behind it" unit="cycles" {...register("cycles")} wrong={wrong("cycles")} />
    </>
  );
}

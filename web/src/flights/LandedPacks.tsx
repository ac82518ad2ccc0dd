import type { Control, UseFormRegister } from "react-hook-form";
import { useController } from "react-hook-form";
import type { Schemas } from "../api/client";
import { CellsField } from "../parts/CellsField";
import { NumberField } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { LogTyped } from "./logform";

export interface LandedPacksProps {
  packs: Schemas["Flight"]["packs"];
  register: UseFormRegister<LogTyped>;
  control: Control<LogTyped, unknown, Schemas["NewLog"]>;
  wrong: (name: `packs.${number}.${"percent" | "temp"}`) => string | undefined;
}

/** How each pack came back: its level or its cells, and its temperature. */
export function LandedPacks({ packs, register, control, wrong }: LandedPacksProps) {
  const u = useUnits();
  return (
    <Sheet title={packs.length > 1 ? "Packs" : "Pack"}>
      {packs.map((p, i) => (
        <fieldset key={p.id}>
          <legend className="fs-6 fw-semibold mb-1">{p.label}</legend>
          <div className="two" style={{ gap: "0 1rem" }}>
            <NumberField
              label={`Level of ${p.label}`}
              unit="%"
              {...register(`packs.${i}.percent`)}
              wrong={wrong(`packs.${i}.percent`)}
            />
            <NumberField
              label={`Temperature of ${p.label}`}
              unit={u.label("temperature")}
              {...register(`packs.${i}.temp`)}
              wrong={wrong(`packs.${i}.temp`)}
            />
          </div>
          <Cells i={i} label={p.label} count={p.cells} control={control} />
        </fieldset>
      ))}
    </Sheet>
  );
}

interface CellsProps {
  i: number;
  label: string;
  count: number;
  control: LandedPacksProps["control"];
}

function Cells({ i, label, count, control }: CellsProps) {
  const { field, fieldState } = useController({ control, name: `packs.${i}.cells` });
  const fault = fieldState.error?.message;
  return (
    <Fold summary="Cells instead of a level" open={Boolean(fault) || field.value.some((c) => c !== "")}>
      <CellsField
        label={`Cells of ${label}`}
        count={count}
        values={field.value}
        onChange={field.onChange}
        wrong={fault}
      />
    </Fold>
  );
}

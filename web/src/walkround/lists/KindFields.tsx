import type { UseFormRegister } from "react-hook-form";
import { AreaField, NumberField, SelectField, TextField } from "../../parts/Field";
import type { ItemTyped } from "./form";

interface Props {
  kind: string;
  register: UseFormRegister<ItemTyped>;
  wrong: (k: keyof ItemTyped) => string | undefined;
}

/** The fields that only some kinds have. */
export function KindFields({ kind, register, wrong }: Props) {
  switch (kind) {
    case "group":
      return (
        <AreaField
          label="Marks, one a line"
          hint="id | station | what is looked at | what bad looks like"
          {...register("marks")}
          wrong={wrong("marks")}
        />
      );
    case "choice":
      return (
        <AreaField
          label="Answers, one a line"
          hint="key | clear, watch or stop | answer | what is done then"
          {...register("options")}
          wrong={wrong("options")}
        />
      );
    case "timer":
      return (
        <>
          <NumberField label="Runs at least" unit="s" {...register("least_s")} wrong={wrong("least_s")} />
          <div className="two">
            <NumberField
              label="Longer, at least"
              unit="s"
              {...register("longer_s")}
              wrong={wrong("longer_s")}
            />
            <TextField label="when, like wind > 5" {...register("longer_when")} />
          </div>
        </>
      );
    case "count":
      return (
        <NumberField label="There ought to be" unit="" {...register("expect")} wrong={wrong("expect")} />
      );
    case "computed":
      return <TextField label="Rule of the gate, like mass or firmware" {...register("rule")} />;
    case "reading":
    case "motors":
    case "set":
      return (
        <>
          {kind === "set" && (
            <SelectField label="One number for each" {...register("per")}>
              <option>heading</option>
              <option>nozzle</option>
              <option>arm</option>
            </SelectField>
          )}
          <div className="two">
            <TextField label="Quantity" {...register("quantity")} />
            <TextField label="Unit" {...register("unit")} />
          </div>
          <div className="two">
            <NumberField label="Least that is taken" unit="" {...register("min")} wrong={wrong("min")} />
            <NumberField label="Most that is taken" unit="" {...register("max")} wrong={wrong("max")} />
            <NumberField label="Step of the instrument" unit="" {...register("step")} wrong={wrong("step")} />
          </div>
          {kind === "reading" && (
            <div className="two">
              <NumberField
                label="Stop under"
                unit=""
                {...register("stop_below")}
                wrong={wrong("stop_below")}
              />
              <NumberField
                label="Watch under"
                unit=""
                {...register("watch_below")}
                wrong={wrong("watch_below")}
              />
              <NumberField
                label="Watch over"
                unit=""
                {...register("watch_above")}
                wrong={wrong("watch_above")}
              />
              <NumberField
                label="Stop over"
                unit=""
                {...register("stop_above")}
                wrong={wrong("stop_above")}
              />
            </div>
          )}
        </>
      );
    default:
      return null;
  }
}

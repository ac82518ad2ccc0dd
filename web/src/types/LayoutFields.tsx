import { CheckField, SelectField, TextField } from "../parts/Field";
import { FigureFields } from "./FigureFields";
import { geometry, kinds } from "./figures";
import type { FormOfType } from "./useTypeForm";

/** How the airframe is laid out: what its plan is drawn from. */
export function LayoutFields({ f }: { f: FormOfType }) {
  const kind = f.now.kind;
  return (
    <>
      <SelectField label="Layout" {...f.register("kind")} wrong={f.said("kind")}>
        {Object.entries(kinds).map(([k, words]) => (
          <option key={k} value={k}>
            {words}
          </option>
        ))}
      </SelectField>
      <FigureFields f={f} of={geometry} kind={kind} />
      {kind === "multirotor" && (
        <CheckField label="Two motors on each arm, one over the other" {...f.register("coaxial")} />
      )}
      {kind !== "multirotor" && (
        <SelectField label="Tail" {...f.register("tail")} wrong={f.said("tail")}>
          <option value="">fin and tailplane</option>
          <option value="v">two surfaces in a V</option>
        </SelectField>
      )}
      {kind !== "fixed-wing" && (
        <TextField
          label="Arms are opened in this order"
          hint="Numbers, the lower ones first where they lie over each other. Empty: as numbered, from the front right."
          {...f.register("unfold")}
          wrong={f.said("unfold")}
        />
      )}
    </>
  );
}

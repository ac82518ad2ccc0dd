import { AreaField, NumberField, SelectField } from "../parts/Field";
import { offsetWrong, type Said } from "./model";

export interface AfterFieldsProps {
  said: Said;
  onSaid: (more: Partial<Said>) => void;
}

/** What is asked after a flight, beside its pictures. */
export function AfterFields({ said, onSaid }: AfterFieldsProps) {
  return (
    <>
      <SelectField
        label="Was the camera still running at landing?"
        value={said.running}
        onChange={(e) => onSaid({ running: e.target.value })}
      >
        <option value="">nobody looked</option>
        <option value="yes">yes</option>
        <option value="no">no</option>
      </SelectField>
      <NumberField
        label="Camera clock is behind by"
        unit="min"
        hint="Where its clock is off; ahead is less than 0."
        value={said.offset}
        wrong={offsetWrong(said)}
        onChange={(e) => onSaid({ offset: e.target.value })}
      />
      <AreaField
        label="Shake, noise or blur, if any was seen"
        maxLength={500}
        value={said.shake}
        onChange={(e) => onSaid({ shake: e.target.value })}
      />
    </>
  );
}

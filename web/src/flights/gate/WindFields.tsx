import { Notice } from "../../parts/Notice";
import { Button } from "react-bootstrap";
import { NumberField, SelectField } from "../../parts/Field";
import { serverNow, useAge, useNow } from "../../parts/time";
import { useUnits } from "../../parts/units";
import { windOffer, type WindTyped, type WindWrong } from "./model";

interface Props {
  value: WindTyped;
  onChange: (w: WindTyped) => void;
  wrong: WindWrong;
  /** The wind measured at this site before. */
  before?: Partial<WindTyped>;
}

/** The wind as it was measured here, or the reading of before that is still so. */
export function WindFields({ value, onChange, wrong, before }: Props) {
  const u = useUnits();
  const age = useAge();
  const offer = windOffer(value, before, useNow());
  // A number that changes is a new reading, taken now.
  const set = (part: Partial<WindTyped>) =>
    onChange({ ...value, ...part, at: new Date(serverNow()).toISOString() });
  return (
    <>
      {offer && (
        <Notice className="mb-3">
          <p className="flex-grow-1">
            Measured here {age(offer.at)}: {offer.steady} {u.label("speed")}
            {offer.gust && `, gusts ${offer.gust}`}.
          </p>
          <Button variant="outline-primary" onClick={() => onChange(offer)}>
            Still so
          </Button>
        </Notice>
      )}
      <div className="row row-cols-2 gx-3">
        <NumberField
          label="Steady wind"
          unit={u.label("speed")}
          value={value.steady}
          onChange={(e) => set({ steady: e.target.value })}
          wrong={wrong.steady}
        />
        <NumberField
          label="Gusts, if seen"
          unit={u.label("speed")}
          value={value.gust}
          onChange={(e) => set({ gust: e.target.value })}
          wrong={wrong.gust}
        />
        <NumberField
          label="Measured at"
          unit={u.label("length")}
          placeholder={u.value("length", 2).toFixed(0)}
          value={value.height}
          onChange={(e) => set({ height: e.target.value })}
          wrong={wrong.height}
        />
        <SelectField
          label="Ground around"
          value={value.ground}
          onChange={(e) => set({ ground: e.target.value as WindTyped["ground"] })}
        >
          <option value="water">Water</option>
          <option value="open">Open ground</option>
          <option value="crops">Crops and hedges</option>
          <option value="built">Houses or wood</option>
        </SelectField>
      </div>
      {value.at && value.steady && (
        <p className="soft mb-2">Entered {age(value.at)}. A reading holds for 60 minutes.</p>
      )}
    </>
  );
}

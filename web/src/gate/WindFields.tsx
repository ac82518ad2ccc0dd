import type { Schemas } from "../api/client";
import { NumberField, SelectField } from "../parts/Field";
import { parseInRange } from "../parts/number";
import { serverNow, useAge } from "../parts/time";
import { useUnits, type Units } from "../parts/units";

export interface WindTyped {
  at: string;
  steady: string;
  gust: string;
  height: string;
  ground: Schemas["WindReading"]["ground"];
}

export const blankWind: WindTyped = { at: "", steady: "", gust: "", height: "", ground: "open" };

/** What was typed as a reading in SI, or what is wrong with it; an empty steady wind is no reading. */
export function readWind(
  t: WindTyped,
  u: Units,
): { wind?: Schemas["WindReading"]; wrong: Partial<Record<keyof WindTyped, string>> } {
  const wrong: Partial<Record<keyof WindTyped, string>> = {};
  const speed = (max: number) => [0, u.value("speed", max), u.label("speed")] as const;
  const steady = parseInRange(t.steady, ...speed(60));
  const gust = parseInRange(t.gust, ...speed(90));
  const height = parseInRange(t.height, u.value("length", 0.5), u.value("length", 500), u.label("length"));
  if (!steady.ok && !steady.empty) wrong.steady = steady.sentence;
  if (!gust.ok && !gust.empty) wrong.gust = gust.sentence;
  if (!height.ok && !height.empty) wrong.height = height.sentence;
  if (steady.ok && gust.ok && gust.value < steady.value)
    wrong.gust = "A gust is at least as strong as the steady wind.";
  if (!steady.ok || !t.at || Object.keys(wrong).length > 0) return { wrong };
  return {
    wrong,
    wind: {
      at: t.at,
      steady_ms: u.toBase("speed", steady.value),
      gust_ms: gust.ok ? u.toBase("speed", gust.value) : null,
      measured_m: height.ok ? u.toBase("length", height.value) : 2,
      ground: t.ground,
    },
  };
}

interface Props {
  value: WindTyped;
  onChange: (w: WindTyped) => void;
  wrong: Partial<Record<keyof WindTyped, string>>;
}

export function WindFields({ value, onChange, wrong }: Props) {
  const u = useUnits();
  const age = useAge();
  // A number that changes is a new reading, taken now.
  const set = (part: Partial<WindTyped>) =>
    onChange({ ...value, ...part, at: new Date(serverNow()).toISOString() });
  return (
    <>
      <div className="two" style={{ gap: "0 1rem" }}>
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

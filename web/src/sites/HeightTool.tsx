import { useMeasureHeight } from "./api";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Dialog } from "../parts/Dialog";
import { NumberField, SelectField } from "../parts/Field";
import { Problem } from "../parts/states";
import { readWay, ways, type How } from "./heightWays";

export interface HeightToolProps {
  open: boolean;
  onClose: () => void;
  onTake: (m: number, sigma: number, measured: "clinometer" | "two stations" | "shadow") => void;
}

/** How high it is, worked out from what the crew can measure, each way with its error. */
export function HeightTool({ open, onClose, onTake }: HeightToolProps) {
  const measureHeight = useMeasureHeight();
  const [how, setHow] = useState<How>("clinometer");
  const [text, setText] = useState<Record<string, string>>({ eye: "1.6" });
  const [answer, setAnswer] = useState<{ m: number; sigma: number }>();
  const [wrong, setWrong] = useState<Partial<Record<string, string>>>({});
  const [error, setError] = useState<unknown>();
  const way = ways[how];
  const put = (k: string, v: string) => {
    setText({ ...text, [k]: v });
    setAnswer(undefined);
  };
  const work = async () => {
    setError(undefined);
    setAnswer(undefined);
    const { body, wrong: bad } = readWay(how, text);
    setWrong(bad);
    if (Object.keys(bad).length > 0) return;
    try {
      setAnswer(await measureHeight.mutateAsync(body));
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Dialog title="Measure the height" open={open} onClose={onClose}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          e.stopPropagation();
          void work();
        }}
      >
        <SelectField
          label="How"
          value={how}
          hint={way.words}
          onChange={(e) => {
            setHow(e.target.value as How);
            setAnswer(undefined);
          }}
        >
          {(Object.keys(ways) as How[]).map((k) => (
            <option key={k} value={k}>
              {k[0]?.toUpperCase() + k.slice(1)}
            </option>
          ))}
        </SelectField>
        {way.entries.map((e) => (
          <div key={`${how}-${e.name}`} className="row g-2">
            <div className="col-8">
              <NumberField
                label={e.label}
                unit={e.unit}
                value={text[e.name] ?? ""}
                wrong={wrong[e.name]}
                onChange={(x) => put(e.name, x.target.value)}
              />
            </div>
            <div className="col-4">
              <NumberField
                label="±"
                aria-label={`${e.label}, plus or minus`}
                unit={e.unit}
                value={text[`${e.name}-s`] ?? e.sigma}
                wrong={wrong[`${e.name}-s`]}
                onChange={(x) => put(`${e.name}-s`, x.target.value)}
              />
            </div>
          </div>
        ))}
        {way.eye && (
          <NumberField
            label="Eye above the ground"
            unit="m"
            value={text.eye ?? ""}
            wrong={wrong.eye}
            onChange={(x) => put("eye", x.target.value)}
          />
        )}
        {error !== undefined && <Problem error={error} />}
        {answer && (
          <p role="status" className="fig" style={{ fontSize: "1.5rem" }}>
            {answer.m.toFixed(2)} ± {answer.sigma.toFixed(2)} m
          </p>
        )}
        <div className="d-flex gap-2">
          <Button type="submit" variant={answer ? "outline-primary" : "primary"}>
            Work it out
          </Button>
          {answer && (
            <Button onClick={() => onTake(answer.m, answer.sigma, way.measured)}>Take this height</Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

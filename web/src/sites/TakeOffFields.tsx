import { Button, ButtonGroup } from "react-bootstrap";
import type { UseFormReturn } from "react-hook-form";
import { CheckField, NumberField, TextField } from "../parts/Field";
import { answered, looked, type FeatureTyped } from "./featureForm";

interface Props {
  form: Pick<UseFormReturn<FeatureTyped>, "register" | "setValue" | "watch">;
  wrong: (field: keyof FeatureTyped) => string | undefined;
}

/** What was looked at of a take-off place, and where one climbs out from it. */
export function TakeOffFields({ form, wrong }: Props) {
  const ground = form.watch("ground");
  return (
    <>
      <CheckField label="The main place" {...form.register("main")} />
      <fieldset className="mb-2">
        <legend className="h3">Looked at on the ground</legend>
        {looked.map(([k, words]) => (
          <div key={k} className="d-flex justify-content-between align-items-center gap-2 mb-1">
            <span id={`g-${k}`}>{words}</span>
            <ButtonGroup aria-labelledby={`g-${k}`}>
              {([true, false] as const).map((v) => (
                <Button
                  key={String(v)}
                  variant={ground?.[k] === v ? "primary" : "outline-primary"}
                  aria-pressed={ground?.[k] === v}
                  onClick={() => form.setValue("ground", answered(ground, k, v))}
                >
                  {v ? "yes" : "no"}
                </Button>
              ))}
            </ButtonGroup>
          </div>
        ))}
      </fieldset>
      <TextField
        label="Headings free for climb-out and approach"
        hint="Degrees true, with spaces: 90 270. Empty: not looked at."
        {...form.register("free_deg")}
        wrong={wrong("free_deg")}
      />
      <NumberField
        label="Elevation of the ground"
        unit="m"
        hint="Empty: from the terrain, or the site's"
        {...form.register("elevation")}
        wrong={wrong("elevation")}
      />
    </>
  );
}

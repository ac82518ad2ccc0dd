import { useState } from "react";
import { Button } from "react-bootstrap";
import type { UseFormReturn } from "react-hook-form";
import { NumberField, SelectField } from "../parts/Field";
import type { FeatureTyped } from "./featureForm";
import { HeightTool } from "./HeightTool";
import type { Feature } from "./kinds";

interface Props {
  form: Pick<UseFormReturn<FeatureTyped>, "register" | "setValue">;
  wrong: (field: keyof FeatureTyped) => string | undefined;
  kind: Feature["kind"];
  /** Metres kept clear around it where nothing is entered. */
  usualBuffer: number;
}

/** How high a thing stands, how surely, and how far one keeps from it. */
export function HeightFields({ form, wrong, kind, usualBuffer }: Props) {
  const [tool, setTool] = useState(false);
  const text = (m: number) => String(+m.toFixed(2));
  return (
    <>
      <div className="row g-2">
        <div className="col-6">
          <NumberField
            label="Height"
            unit="m"
            hint="Empty: not known"
            {...form.register("height_m")}
            wrong={wrong("height_m")}
          />
        </div>
        <div className="col-6">
          <NumberField
            label="Plus or minus"
            unit="m"
            {...form.register("sigma_m")}
            wrong={wrong("sigma_m")}
          />
        </div>
      </div>
      <div className="d-flex gap-2 align-items-end mb-2">
        <div className="flex-grow-1">
          <SelectField label="Found by" {...form.register("measured")}>
            <option value="">not said</option>
            {["known", "clinometer", "two stations", "shadow", "map", "estimate", "flown"].map((w) => (
              <option key={w}>{w}</option>
            ))}
          </SelectField>
        </div>
        <Button variant="outline-primary" className="mb-3" onClick={() => setTool(true)}>
          Measure it
        </Button>
      </div>
      <NumberField
        label="Kept clear around it"
        unit="m"
        hint={`Empty: ${usualBuffer} m`}
        {...form.register("buffer_m")}
        wrong={wrong("buffer_m")}
      />
      {kind === "wires" && (
        <p className="soft">
          Look from both ends, find the poles first, then the spans. Wires whose height is not known stop an
          automatic start.
        </p>
      )}
      <HeightTool
        open={tool}
        onClose={() => setTool(false)}
        onTake={(m, sigma, how) => {
          form.setValue("height_m", text(m));
          form.setValue("sigma_m", text(sigma));
          form.setValue("measured", how);
          setTool(false);
        }}
      />
    </>
  );
}

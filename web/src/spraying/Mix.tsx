import { useFieldArray } from "react-hook-form";
import { Button } from "react-bootstrap";
import { NumberField, SelectField, TextField } from "../parts/Field";
import { useUnits } from "../parts/units";
import { rates } from "./model";
import type { WishFormOf } from "./WishForm";

/** The products, in the order in which the label has them mixed. */
export function Mix({ form }: { form: WishFormOf }) {
  const { fields, append, remove, move } = useFieldArray({ control: form.control, name: "mix" });
  const r = rates(useUnits());
  const granules = form.watch("granules");
  const fault = (i: number, name: "name" | "amount") => form.formState.errors.mix?.[i]?.[name]?.message;
  return (
    <fieldset className="field">
      <legend className="fs-6 fw-semibold">
        {granules ? "What is spread" : "Products, in the order of mixing"}
      </legend>
      {fields.map((f, i) => (
        <div key={f.id} className="mb-2">
          <TextField
            label={`Product ${i + 1}`}
            {...form.register(`mix.${i}.name`)}
            wrong={fault(i, "name")}
          />
          <div className="row row-cols-2 gx-3">
            <NumberField
              label={`Amount of product ${i + 1}`}
              unit=""
              {...form.register(`mix.${i}.amount`)}
              wrong={fault(i, "amount")}
            />
            <SelectField label={`Unit of product ${i + 1}`} {...form.register(`mix.${i}.unit`)}>
              <option value="L">L</option>
              <option value="kg">kg</option>
            </SelectField>
            <SelectField label={`Of product ${i + 1} for`} {...form.register(`mix.${i}.by`)}>
              <option value="ha">each {r.areaLabel}</option>
              <option value="percent">100 L of mix</option>
            </SelectField>
            <div className="d-flex gap-2 align-items-end mb-3 d-print-none">
              {i > 0 && (
                <Button
                  variant="outline-primary"
                  aria-label={`Product ${i + 1} earlier`}
                  onClick={() => move(i, i - 1)}
                >
                  Earlier
                </Button>
              )}
              <Button
                variant="outline-primary"
                aria-label={`Take out product ${i + 1}`}
                onClick={() => remove(i)}
              >
                Out
              </Button>
            </div>
          </div>
        </div>
      ))}
      <Button
        variant="outline-primary"
        className="d-print-none"
        onClick={() => append({ name: "", amount: "", unit: granules ? "kg" : "L", by: "ha" })}
      >
        Add a product
      </Button>
    </fieldset>
  );
}

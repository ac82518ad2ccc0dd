import type { ComponentProps } from "react";
import { Link } from "react-router";
import { SelectField } from "../parts/Field";
import type { Plan } from "./api";

/** The camera of a plan, from the list of the crew. */
export function CameraField({
  p,
  ...rest
}: { p: Plan } & Omit<ComponentProps<typeof SelectField>, "label" | "children">) {
  return (
    <SelectField label="Camera" hint={<Link to="/cameras">The list of cameras</Link>} {...rest}>
      <option value="">choose</option>
      {p.cameras
        .filter((c) => c.active)
        .map((c) => (
          <option key={c.key} value={c.key}>
            {c.name}
          </option>
        ))}
    </SelectField>
  );
}

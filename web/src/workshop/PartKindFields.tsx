import type { UseFormRegisterReturn } from "react-hook-form";
import { useTypes } from "../api/queries";
import { SelectField } from "../parts/Field";
import { kindName, kindsOf } from "./partKinds";

export interface PartKindFieldsProps {
  /** Key of the type that is chosen. */
  type: string;
  register: (name: "type_key" | "kind") => UseFormRegisterReturn;
  wrong: (name: "type_key" | "kind") => string | undefined;
}

/** For which type a part is, and which kind of its parts. */
export function PartKindFields({ type, register, wrong }: PartKindFieldsProps) {
  const types = useTypes().data?.types;
  return (
    <>
      <SelectField label="For which type" {...register("type_key")} wrong={wrong("type_key")}>
        <option value="">Choose</option>
        {types?.map((t) => (
          <option key={t.profile.key} value={t.profile.key}>
            {t.profile.name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Kind" {...register("kind")} wrong={wrong("kind")}>
        <option value="">Choose</option>
        {kindsOf(types, type).map((k) => (
          <option key={k} value={k}>
            {kindName(k)}
          </option>
        ))}
      </SelectField>
    </>
  );
}

import type { UseFormRegisterReturn } from "react-hook-form";
import { TextField } from "../parts/Field";

type Name = "new_password" | "again" | "pin" | "pin_again";

export interface SecretFieldProps {
  register: (name: Name) => UseFormRegisterReturn;
  wrong: (name: Name) => string | undefined;
  label: string;
}

/** A password chosen anew, typed twice: nobody can look it up later. */
export function NewPasswordFields({ register, wrong, label, first }: SecretFieldProps & { first?: boolean }) {
  return (
    <>
      <TextField
        label={label}
        type="password"
        autoComplete="new-password"
        autoFocus={first}
        hint="At least 10 characters. Four words that do not belong together make a good one."
        wrong={wrong("new_password")}
        {...register("new_password")}
      />
      <TextField
        label="The password again"
        type="password"
        autoComplete="new-password"
        wrong={wrong("again")}
        {...register("again")}
      />
    </>
  );
}

/** A PIN for signatures; one that is new is typed twice. */
export function PinFields({ register, wrong, label, isNew }: SecretFieldProps & { isNew: boolean }) {
  return (
    <>
      <TextField
        label={label}
        type="password"
        inputMode="numeric"
        autoComplete="off"
        hint={isNew ? "4 to 12 digits; no year, no sequence." : undefined}
        wrong={wrong("pin")}
        {...register("pin")}
      />
      {isNew && (
        <TextField
          label="The PIN again"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          wrong={wrong("pin_again")}
          {...register("pin_again")}
        />
      )}
    </>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { get } from "react-hook-form";
import { useDraftForm } from "../parts/form";
import { useSoon } from "../parts/useSoon";
import { useUnits } from "../parts/units";
import { useAddType, useTypeTrial } from "./api";
import { fieldOf, keyFor, profileOf, typeForm, type Profile, type TypeTyped } from "./model";

export interface TypeFormProps {
  before: Profile;
  typed: TypeTyped;
  version: number;
  /** It gets a key of its own, and checklist and programme of one that it is like. */
  isNew: boolean;
  like: string;
}

/** The form of a type, tried by the server while it is typed. */
export function useTypeForm({ before, typed, version, isNew }: TypeFormProps) {
  const u = useUnits();
  const form = useDraftForm<TypeTyped>(
    `type-${before.key || "new"}-${version}-${isNew}`,
    typed,
    [],
    zodResolver(typeForm(u)),
    fieldOf,
  );
  const now = form.watch();
  const named = { ...now, key: isNew ? now.key || keyFor(now.name) || "type" : before.key };
  const profile = profileOf({ ...named, name: named.name || "Type" }, before, version, u);
  const trial = useTypeTrial(useSoon(profile, 250));
  const at: Record<string, string> = {};
  for (const w of trial.data?.wrong ?? []) at[fieldOf(w.field)] ??= w.sentence;
  const said = (name: string): string | undefined =>
    form.wrong(name as "name") ?? (get(now, name) ? at[name] : undefined);
  return { ...form, said, now, trial, profile, add: useAddType() };
}

export type FormOfType = ReturnType<typeof useTypeForm>;

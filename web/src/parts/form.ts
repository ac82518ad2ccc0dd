import { useEffect, useState, type BaseSyntheticEvent } from "react";
import {
  get,
  useForm,
  type DefaultValues,
  type FieldValues,
  type Path,
  type Resolver,
} from "react-hook-form";
import { ProblemError } from "../api/client";
import { clearDraft, keepTyped, readDraft } from "./drafts";

/** What a form's sender returns when what it sent is not with the server yet. */
export const keepDraft = Symbol("keep the draft");

/**
 * A form whose text survives a reload and a lost connection: what was typed, over
 * what the form opens with, so that a draft that was left does not bring back what
 * others have changed since. Secrets are never kept. Faults of the server go to the fields they name; what belongs to no
 * field stands under "root". What is typed may be turned into something else by
 * the schema; the sender gets that.
 */
export function useDraftForm<T extends FieldValues, O = T>(
  key: string,
  defaults: T,
  secret: (keyof T)[] = [],
  resolver?: Resolver<T, unknown, O>,
  /** The name in the form of a field that the server names. */
  at: (field: string) => string = (field) => field,
) {
  const draft = readDraft<T>(key);
  const form = useForm<T, unknown, O>({
    resolver,
    defaultValues: { ...defaults, ...draft } as DefaultValues<T>,
  });
  const [first] = useState(defaults);
  const { watch, setError, clearErrors } = form;
  const hidden = secret.join();
  useEffect(() => {
    const sub = watch((v) => {
      keepTyped(key, first, v as Partial<T>, hidden.split(","));
    });
    return () => sub.unsubscribe();
  }, [watch, key, first, hidden]);

  const submit = (send: (v: O) => Promise<unknown>) => {
    const run = form.handleSubmit(async (v) => {
      try {
        // What only waits on this device keeps its draft until it is taken.
        if ((await send(v)) !== keepDraft) clearDraft(key);
      } catch (e) {
        if (!(e instanceof ProblemError)) throw e;
        const known = Object.keys(form.getValues());
        let placed = false;
        for (const f of e.fields) {
          const own = at(f.field);
          const name =
            get(form.getValues(), own) !== undefined
              ? own
              : known.find((k) => k === f.field || f.field.startsWith(k + "."));
          if (name) {
            setError(name as Path<T>, { message: f.sentence }, { shouldFocus: !placed });
            placed = true;
          }
        }
        if (!placed) setError("root", { message: e.message });
      }
    });
    return (e?: BaseSyntheticEvent) => {
      clearErrors(); // a fault set on a group of fields would otherwise stand for ever and block the next try
      return run(e);
    };
  };
  const wrong = (name: Path<T>): string | undefined => {
    const e = get(form.formState.errors, name) as
      { message?: string; root?: { message?: string } } | undefined;
    return e?.message ?? e?.root?.message; // a fault of a group of boxes lies one level down
  };
  const errors = form.formState.errors;
  return { ...form, submit, wrong, root: errors.root?.message, first: firstMessage(errors) };
}

/** The first of all faults, for the foot of a long form. */
function firstMessage(errors: unknown): string | undefined {
  if (typeof errors !== "object" || errors === null) return undefined;
  const { message } = errors as { message?: unknown };
  if (typeof message === "string" && message) return message;
  for (const [k, v] of Object.entries(errors)) {
    const found = k === "ref" ? undefined : firstMessage(v);
    if (found) return found;
  }
  return undefined;
}

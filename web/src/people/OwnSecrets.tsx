import { zodResolver } from "@hookform/resolvers/zod";
import { useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useForm } from "react-hook-form";
import { ProblemError } from "../api/client";
import { keys } from "../api/keys";
import { Problem } from "../parts/states";
import { useChooseSecrets, type Person, useSignOut } from "./api";
import { secretsForm } from "./model";
import { NewPasswordFields, PinFields } from "./SecretFields";

/** The first thing somebody with a one-time password sees, and the only one until they have chosen their own. */
export function OwnSecrets({ person }: { person: Person }) {
  const signOut = useSignOut();
  const qc = useQueryClient();
  const choose = useChooseSecrets();
  const isNew = person.once === "new";
  const form = useForm({
    resolver: zodResolver(secretsForm(person.once)),
    defaultValues: { new_password: "", again: "", pin: "", pin_again: "" },
  });
  const e = form.formState.errors;
  const send = form.handleSubmit(async ({ new_password, pin }) => {
    try {
      await choose.mutateAsync({ new_password, pin });
    } catch (x) {
      if (!(x instanceof ProblemError)) throw x;
      for (const f of x.fields)
        if (f.field === "new_password" || f.field === "pin")
          form.setError(f.field, { message: f.sentence }, { shouldFocus: true });
    }
  });
  const leave = async () => {
    await signOut.mutateAsync();
    qc.setQueryData(keys.session, null);
  };
  return (
    <main className="container py-5" style={{ maxWidth: 560 }}>
      <h1>Mainstay</h1>
      <p>
        {isNew
          ? `Welcome, ${person.name}. The password you were given only lets you in. Choose your own, and the PIN with which you sign: nobody else knows them, and what is signed with them is yours.`
          : `${person.name}, your password was reset. Choose a new one, and enter the PIN you always signed with: it shows that it is you.`}
      </p>
      <form onSubmit={(x) => void send(x)} noValidate className="sheet">
        {choose.error instanceof ProblemError && choose.error.fields.length === 0 && (
          <Problem error={choose.error} />
        )}
        <NewPasswordFields
          label={isNew ? "Your own password" : "Your new password"}
          first
          register={form.register}
          wrong={(n) => e[n]?.message}
        />
        <PinFields
          label={isNew ? "A PIN for signatures" : "The PIN you sign with"}
          isNew={isNew}
          register={form.register}
          wrong={(n) => e[n]?.message}
        />
        <Button type="submit" className="btn-big w-100" disabled={choose.isPending}>
          {choose.isPending ? "Saving…" : "Keep them"}
        </Button>
        <Button variant="link" className="w-100 mt-2" onClick={() => void leave()}>
          Sign out
        </Button>
      </form>
    </main>
  );
}

import { zodResolver } from "@hookform/resolvers/zod";
import { useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useForm } from "react-hook-form";
import { ProblemError } from "../api/client";
import { keys } from "../api/keys";
import { TextField } from "../parts/Field";
import { Problem } from "../parts/states";
import { useChooseSecrets, type Person, useSignOut } from "./api";
import { secretsForm } from "./model";

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
    <main className="front">
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
        <TextField
          label={isNew ? "Your own password" : "Your new password"}
          type="password"
          autoComplete="new-password"
          autoFocus
          hint="At least 10 characters. Four words that do not belong together make a good one."
          wrong={e.new_password?.message}
          {...form.register("new_password")}
        />
        <TextField
          label="The password again"
          type="password"
          autoComplete="new-password"
          wrong={e.again?.message}
          {...form.register("again")}
        />
        <TextField
          label={isNew ? "A PIN for signatures" : "The PIN you sign with"}
          type="password"
          inputMode="numeric"
          autoComplete="off"
          hint={isNew ? "4 to 12 digits; no year, no sequence." : undefined}
          wrong={e.pin?.message}
          {...form.register("pin")}
        />
        {isNew && (
          <TextField
            label="The PIN again"
            type="password"
            inputMode="numeric"
            autoComplete="off"
            wrong={e.pin_again?.message}
            {...form.register("pin_again")}
          />
        )}
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

import { useSignIn } from "./api";
import { Notice } from "../parts/Notice";
import { useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { keys } from "../api/keys";
import { usePresses } from "../outbox/hooks";
import { TextField } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { setServerTime } from "../parts/time";

export function SignIn() {
  const signIn = useSignIn();
  const qc = useQueryClient();
  const f = useDraftForm("sign-in", { login: "", password: "" }, ["password"]);
  const send = f.submit(async (v) => {
    const s = await signIn.mutateAsync(v);
    setServerTime(s.now);
    qc.setQueryData(keys.session, s);
  });
  const waiting = [...new Set(usePresses().map((p) => p.personName))];
  return (
    <main className="container py-5" style={{ maxWidth: 560 }}>
      <h1>Mainstay</h1>
      <p>May this aircraft fly now, and if not, what must be done first?</p>
      {waiting.length > 0 && (
        <Notice role="status" className="mb-3">
          <p>
            This device keeps presses of {waiting.join(" and ")} that are not with the server yet. They are
            sent after the same person signs in here.
          </p>
        </Notice>
      )}
      <form onSubmit={send} noValidate className="sheet">
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField
          label="Sign-in name"
          autoComplete="username"
          autoFocus
          autoCapitalize="none"
          {...f.register("login")}
          wrong={f.wrong("login")}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          {...f.register("password")}
          wrong={f.wrong("password")}
        />
        <Button type="submit" className="btn-big w-100" disabled={f.formState.isSubmitting}>
          Sign in
        </Button>
        <Fold summary="You cannot sign in?">
          <p className="mb-0">
            Nobody can look a password up. A chief of your crew gives you a one-time password, on your page
            under Crew; with it you come in and choose your own. Your PIN stays. Where the only chief is
            locked out, whoever runs the server gives one: <code>mainstay reset-password</code>.
          </p>
        </Fold>
      </form>
    </main>
  );
}

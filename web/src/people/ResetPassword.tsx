import { useState } from "react";
import { Button } from "react-bootstrap";
import { Problem } from "../parts/states";
import { useResetPassword, type Once, type Person } from "./api";
import { OnceCard } from "./OnceCard";

/** For whoever forgot their password: a one-time one, after a look at what it does. */
export function ResetPassword({ p }: { p: Person }) {
  const [asked, setAsked] = useState(false);
  const [once, setOnce] = useState<Once>();
  const reset = useResetPassword(p.id);
  if (once)
    return (
      <div className="mt-3 pt-3 border-top">
        <OnceCard name={p.name} once={once} onDone={() => setOnce(undefined)} />
      </div>
    );
  return (
    <div className="mt-3 pt-3 border-top">
      {!asked ? (
        <Button variant="outline-primary" className="w-100" onClick={() => setAsked(true)}>
          {p.once === "" ? "Forgot the password" : "New one-time password"}
        </Button>
      ) : (
        <>
          <p>
            {p.name} is signed out everywhere and comes in with a one-time password.{" "}
            {p.once === "new"
              ? "Then they choose a password and a PIN."
              : "Their PIN stays, and they need it to choose a new password. Whoever lost both is added anew, under another sign-in name; their records stay theirs."}
          </p>
          {reset.error && <Problem error={reset.error} />}
          <Button
            variant="danger"
            className="w-100"
            autoFocus // it would be below what the dialog shows
            disabled={reset.isPending}
            onClick={() => reset.mutate(undefined, { onSuccess: setOnce })}
          >
            {reset.isPending ? "Making one…" : `Give ${p.name} a one-time password`}
          </Button>
        </>
      )}
    </div>
  );
}

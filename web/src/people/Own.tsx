import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useChangePassword, useChangePin } from "./api";
import { newPasswordForm, newPinForm } from "./model";
import { NewPasswordFields, PinFields } from "./SecretFields";

const noPin = { password: "", pin: "", pin_again: "" };
const noPassword = { password: "", new_password: "", again: "" };

/** One's own PIN and password. */
export function Own() {
  return (
    <Sheet title="Your own PIN and password">
      <OwnPin />
      <hr />
      <OwnPassword />
    </Sheet>
  );
}

function OwnPin() {
  const [saved, setSaved] = useState("");
  const keep = useChangePin();
  const f = useDraftForm("own-pin", noPin, ["password", "pin", "pin_again"], zodResolver(newPinForm));
  const send = f.submit(async ({ password, pin }) => {
    setSaved("");
    await keep.mutateAsync({ password, pin });
    setSaved("Your PIN is changed.");
    f.reset(noPin);
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <TextField
        label="Your password, to change the PIN"
        type="password"
        autoComplete="current-password"
        {...f.register("password")}
        wrong={f.wrong("password")}
      />
      <PinFields
        label="New PIN"
        isNew
        register={(n) => f.register(n as "pin" | "pin_again")}
        wrong={(n) => f.wrong(n as "pin" | "pin_again")}
      />
      <Button type="submit" variant="outline-primary" disabled={keep.isPending}>
        Change the PIN
      </Button>
      {saved && (
        <p className="mt-2 mb-0" role="status">
          {saved}
        </p>
      )}
    </form>
  );
}

function OwnPassword() {
  const [saved, setSaved] = useState("");
  const keep = useChangePassword();
  const f = useDraftForm(
    "own-password",
    noPassword,
    ["password", "new_password", "again"],
    zodResolver(newPasswordForm),
  );
  const send = f.submit(async ({ password, new_password }) => {
    setSaved("");
    await keep.mutateAsync({ password, new_password });
    setSaved("Your password is changed; other devices are signed out.");
    f.reset(noPassword);
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <TextField
        label="Your password now"
        type="password"
        autoComplete="current-password"
        {...f.register("password")}
        wrong={f.wrong("password")}
      />
      <NewPasswordFields
        label="New password"
        register={(n) => f.register(n as "new_password" | "again")}
        wrong={(n) => f.wrong(n as "new_password" | "again")}
      />
      <Button type="submit" variant="outline-primary" disabled={keep.isPending}>
        Change the password
      </Button>
      {saved && (
        <p className="mt-2 mb-0" role="status">
          {saved}
        </p>
      )}
    </form>
  );
}

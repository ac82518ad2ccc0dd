import { useState } from "react";
import { Button } from "react-bootstrap";
import { TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useChangePassword, useChangePin } from "./api";

/** One's own PIN and password. */
export function Own() {
  const [saved, setSaved] = useState("");
  const keepPin = useChangePin();
  const keepPassword = useChangePassword();
  const pin = useDraftForm("own-pin", { password: "", pin: "" }, ["password", "pin"]);
  const pass = useDraftForm("own-password", { password: "", new_password: "" }, ["password", "new_password"]);
  const sendPin = pin.submit(async (v) => {
    await keepPin.mutateAsync(v);
    setSaved("Your PIN is changed.");
    pin.reset({ password: "", pin: "" });
  });
  const sendPass = pass.submit(async (v) => {
    await keepPassword.mutateAsync(v);
    setSaved("Your password is changed; other devices are signed out.");
    pass.reset({ password: "", new_password: "" });
  });
  return (
    <Sheet title="Your own PIN and password">
      {saved && <p role="status">{saved}</p>}
      <form onSubmit={sendPin} noValidate>
        {pin.root && <Problem error={new Error(pin.root)} />}
        <TextField
          label="Your password, to change the PIN"
          type="password"
          autoComplete="current-password"
          {...pin.register("password")}
          wrong={pin.wrong("password")}
        />
        <TextField
          label="New PIN"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          {...pin.register("pin")}
          wrong={pin.wrong("pin")}
        />
        <Button type="submit" variant="outline-primary">
          Change the PIN
        </Button>
      </form>
      <hr />
      <form onSubmit={sendPass} noValidate>
        {pass.root && <Problem error={new Error(pass.root)} />}
        <TextField
          label="Your password now"
          type="password"
          autoComplete="current-password"
          {...pass.register("password")}
          wrong={pass.wrong("password")}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          {...pass.register("new_password")}
          wrong={pass.wrong("new_password")}
        />
        <Button type="submit" variant="outline-primary">
          Change the password
        </Button>
      </form>
    </Sheet>
  );
}

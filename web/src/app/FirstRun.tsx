import { useCreateCrew } from "./api";
import { useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { keys } from "../api/keys";
import { SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Problem } from "../parts/states";
import { setServerTime } from "../parts/time";
import { UnitFields } from "../setup/UnitFields";
import { loginOf } from "./login";
import { metric } from "../setup/units";

/** The first page of an empty Mainstay: the crew and its first chief. */
export function FirstRun({ zones }: { zones: string[] }) {
  const createCrew = useCreateCrew();
  const qc = useQueryClient();
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const all = zones.includes(here) ? zones : [here, ...zones];
  const f = useDraftForm(
    "first-run",
    { crew_name: "", zone: here, name: "", login: "", password: "", pin: "", pin_again: "", units: metric },
    ["password", "pin", "pin_again"],
  );
  const send = f.submit(async ({ pin_again, ...v }) => {
    if (pin_again !== v.pin) {
      f.setError("pin_again", { message: "This differs from the PIN above." }, { shouldFocus: true });
      return;
    }
    const s = await createCrew.mutateAsync(v);
    setServerTime(s.now);
    qc.setQueryData(keys.session, s);
  });
  return (
    <main className="container py-5" style={{ maxWidth: 760 }}>
      <h1>Set up your crew</h1>
      <p>
        This is done once. You become the crew&rsquo;s first chief; you add the others, the aircraft and the
        packs afterwards.
      </p>
      <form onSubmit={send} noValidate className="sheet">
        {f.root && <Problem error={new Error(f.root)} />}
        <h2>The crew</h2>
        <TextField label="Name of the crew" {...f.register("crew_name")} wrong={f.wrong("crew_name")} />
        <SelectField
          label="Time zone where you work"
          {...f.register("zone")}
          wrong={f.wrong("zone")}
          hint="All times are shown in this zone."
        >
          {all.map((z) => (
            <option key={z}>{z}</option>
          ))}
        </SelectField>
        <UnitFields value={f.watch("units")} onChange={(u) => f.setValue("units", u)} />
        <h2 className="mt-2">You</h2>
        <TextField
          label="Your name"
          autoComplete="name"
          {...f.register("name", {
            onBlur: (e: { target: { value: string } }) =>
              f.getValues("login") || f.setValue("login", loginOf(e.target.value)),
          })}
          wrong={f.wrong("name")}
        />
        <TextField
          label="Sign-in name"
          autoCapitalize="none"
          autoComplete="username"
          {...f.register("login")}
          wrong={f.wrong("login")}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="new-password"
          hint="At least 10 characters."
          {...f.register("password")}
          wrong={f.wrong("password")}
        />
        <TextField
          label="PIN for your signatures"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          hint="4 to 12 digits. You enter it each time you sign; it is your signature, so nobody else may know it."
          {...f.register("pin")}
          wrong={f.wrong("pin")}
        />
        <TextField
          label="The PIN once more"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          {...f.register("pin_again")}
          wrong={f.wrong("pin_again")}
        />
        <Button type="submit" className="btn-big w-100" disabled={f.formState.isSubmitting}>
          Set up the crew
        </Button>
      </form>
    </main>
  );
}

import { useSignWorkOrder } from "./api";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useSession } from "../parts/session";
import { AreaField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";

/** The signature under a work order, with a second person where the task asks for one. */
export function SignOrder({ o }: { o: Schemas["WorkOrder"] }) {
  const signWorkOrder = useSignWorkOrder();
  const qc = useQueryClient();
  const { person } = useSession();
  const people = useQuery({
    queryKey: keys.people,
    queryFn: () => ask(api.GET("/people")),
    enabled: o.second_person,
  });
  const f = useDraftForm(`sign-${o.id}`, { note: "", second_login: "", second_pin: "", pin: "" }, [
    "pin",
    "second_pin",
  ]);
  const send = f.submit(async (v) => {
    try {
      const done = await signWorkOrder.mutateAsync({ id: o.id, body: v });
      qc.setQueryData(keys.order(o.id), done);
    } finally {
      f.setValue("pin", "");
      f.setValue("second_pin", "");
    }
  });
  return (
    <Sheet title="Sign the work">
      {o.missing.length > 0 ? (
        <>
          <p className="mb-1">
            {o.missing.length === 1 ? "One step stands" : `${o.missing.length} steps stand`} between this and
            the signature:
          </p>
          <ul className="mb-0 ps-3">
            {o.missing.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </>
      ) : (
        <form onSubmit={send} noValidate>
          {f.root && <Problem error={new Error(f.root)} />}
          <AreaField label="What was done and found" {...f.register("note")} wrong={f.wrong("note")} />
          {o.second_person && (
            <fieldset>
              <legend className="fs-6 fw-semibold">A second person looks at this work</legend>
              <SelectField label="Who" {...f.register("second_login")} wrong={f.wrong("second_login")}>
                <option value="">Choose</option>
                {people.data?.people
                  .filter((p) => p.active && p.once === "" && p.id !== person.id)
                  .filter((p) => p.roles.some((r) => r === "technician" || r === "pilot" || r === "chief"))
                  .map((p) => (
                    <option key={p.id} value={p.login}>
                      {p.name}
                    </option>
                  ))}
              </SelectField>
              <TextField
                label="Their PIN"
                type="password"
                inputMode="numeric"
                autoComplete="off"
                {...f.register("second_pin")}
                wrong={f.wrong("second_pin")}
              />
            </fieldset>
          )}
          <PinPad
            value={f.watch("pin")}
            onChange={(v) => f.setValue("pin", v)}
            who={person.name}
            statement="I have done or inspected this work, it is complete and in order."
            wrong={f.wrong("pin")}
          />
          <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
            Sign the work
          </Button>
        </form>
      )}
    </Sheet>
  );
}

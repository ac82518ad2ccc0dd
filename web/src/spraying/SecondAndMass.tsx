import { usePeople } from "../api/queries";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { z } from "zod";
import { newId, type Schemas } from "../api/client";
import { useSession } from "../parts/session";
import { NumberField, SelectField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { PinPad } from "../parts/PinPad";
import { Problem } from "../parts/states";
import { typedNumber } from "../parts/typed";
import { useUnits } from "../parts/units";
import { useFill, type Plan } from "./api";
import { massFault } from "./presses";
import { usePlanPress } from "./send";

interface SecondProps {
  fill: Schemas["SprayFill"];
  p: Plan;
  /** Presses of this plan are on their way: a signature is for what the server knows. */
  waits: boolean;
}

/** The second person signs what went in; then the aircraft is weighed. */
export function SecondAndMass({ fill, p, waits }: SecondProps) {
  const u = useUnits();
  const { person } = useSession();
  const people = usePeople();
  const send = useFill(p.job_id, p.aircraft_id, fill.number);
  const press = usePlanPress(p.job_id, p.aircraft_id);
  const [login, setLogin] = useState("");
  const [pin, setPin] = useState("");
  const all = fill.lines.every((l) => l.first);
  const seen = fill.lines.every((l) => l.second);
  const should = p.dry_kg + fill.litres * (p.wish.granules ? 1 : p.wish.kg_per_l);
  const weigh = z.object({
    mass: typedNumber(
      u.value("mass", 0.1),
      u.value("mass", 1000),
      u.label("mass"),
      "Weigh it and enter what it weighs.",
    ),
  });
  const f = useDraftForm(`fill-${p.id}-${fill.number}`, { mass: "" }, [], zodResolver(weigh));
  const weighed = f.submit(async (v) => {
    const kg = u.toBase("mass", v.mass ?? 0);
    const wrong = massFault(kg, should, (x) => u.show("mass", x));
    if (wrong) return f.setError("mass", { message: wrong });
    press("spray.mass", { fill: newId(), number: fill.number, mass_kg: kg });
  });
  if (!all) return <p className="soft mb-0">When all of it is in, a second person signs.</p>;
  if (waits) return <p className="soft mb-0">What went in is sent first; then a second person signs.</p>;
  return (
    <>
      {send.error && <Problem error={send.error} />}
      {!seen && (
        <div className="mb-3">
          <SelectField label="Seen by" value={login} onChange={(e) => setLogin(e.target.value)}>
            <option value="">Choose</option>
            {people.data?.people
              .filter((x) => x.active && x.id !== person.id && x.roles.some((r) => r !== "reader"))
              .map((x) => (
                <option key={x.id} value={x.login}>
                  {x.name}
                </option>
              ))}
          </SelectField>
          {login && (
            <>
              <PinPad
                value={pin}
                onChange={setPin}
                statement={`I saw all of it go in: ${fill.litres.toFixed(1)} ${p.wish.granules ? "kg" : "L"}.`}
                who={people.data?.people.find((x) => x.login === login)?.name ?? login}
              />
              <Button
                className="btn-big mt-2"
                disabled={pin.length < 4 || send.isPending}
                onClick={() =>
                  send.mutate({ id: newId(), version: fill.version, second_login: login, second_pin: pin })
                }
              >
                Seen: all of it is in
              </Button>
            </>
          )}
        </div>
      )}
      {fill.mass_kg == null && (
        <form onSubmit={weighed} noValidate>
          <NumberField
            label="Weighed before take-off"
            unit={u.label("mass")}
            {...f.register("mass")}
            wrong={f.wrong("mass")}
            hint={`It should be about ${u.show("mass", should)}.`}
          />
          <Button type="submit" className="btn-big">
            Weighed
          </Button>
        </form>
      )}
    </>
  );
}

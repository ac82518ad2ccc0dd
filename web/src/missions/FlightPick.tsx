import { useAddress } from "../parts/address";
import { Leaves } from "../parts/Leaves";
import type { Flight, Plan } from "./api";

/** Which flight of the plan is looked at. */
export function FlightPick({ p, f }: { p: Plan; f: Flight }) {
  const [, go] = useAddress();
  if (p.flights.length < 2) return null;
  return (
    <Leaves
      label="Flight"
      leaves={p.flights.map((x) => ({
        key: String(x.number),
        name: `Flight ${x.number}${x.again ? " again" : ""}${x.number === p.next ? " · next" : ""}`,
      }))}
      now={String(f.number)}
      onChoose={(flight) => go({ flight })}
    />
  );
}

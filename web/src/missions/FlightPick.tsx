import { useAddress } from "../parts/address";
import type { Flight, Plan } from "./api";

/** Which flight of the plan is looked at. */
export function FlightPick({ p, f }: { p: Plan; f: Flight }) {
  const [, go] = useAddress();
  if (p.flights.length < 2) return null;
  return (
    <div className="leaves no-print" role="group" aria-label="Flight">
      {p.flights.map((x) => (
        <button
          key={x.number}
          type="button"
          aria-pressed={x.number === f.number}
          onClick={() => go({ flight: String(x.number) })}
        >
          Flight {x.number}
          {x.again && " again"}
          {x.number === p.next && " · next"}
        </button>
      ))}
    </div>
  );
}

import { useZone } from "../parts/time";
import { Sheet } from "../parts/Sheet";
import type { Plan } from "./api";

/** Where the sun stands over the hours of the job. */
export function Sun({ p }: { p: Plan }) {
  const z = useZone();
  if (p.sun.length === 0) return null;
  const low = p.sun.filter((s) => s.low).length;
  return (
    <Sheet title="Sun over the hours of the job">
      <p className="mb-2">
        {low === 0
          ? "It stands over 30° all the time: shadows are short."
          : low === p.sun.length
            ? "It stands under 30° all the time: shadows are long."
            : "It stands under 30° part of the time: shadows are long then."}
      </p>
      <ul className="list-unstyled d-flex flex-wrap gap-3 m-0">
        {p.sun.map((s) => (
          <li key={s.at} className={s.low ? "soft" : undefined}>
            <span className="fig">{z.time(s.at)}</span> <strong>{Math.round(s.elevation_deg)}°</strong>
            {s.low && " low"}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

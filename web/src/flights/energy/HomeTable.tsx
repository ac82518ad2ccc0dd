import { useUnits } from "../../parts/units";
import { callOutWords, type CallOut } from "./model";

/** What the packs must still show to come home, by distance. */
export function HomeTable({ home }: { home: CallOut[] }) {
  const u = useUnits();
  if (home.length === 0) return null;
  return (
    <dl
      className="d-flex flex-wrap gap-4 mb-2"
      aria-label="What the packs must show to come home, by distance"
    >
      {home.map((c) => (
        <div key={c.distance_m} className="d-flex gap-2">
          <dt className="fw-normal soft">{u.show("length", c.distance_m)}</dt>
          <dd className="fig m-0 fw-semibold">{callOutWords(c)}</dd>
        </div>
      ))}
    </dl>
  );
}

import { tiles } from "../parts/columns";
import { cloudWords } from "./model";
import type { Schemas } from "../api/client";
import { useAge, useZone } from "../parts/time";
import { Fact, num } from "./Fact";

/** The newest report as it stands over the site, in figures. */
export function SkyNow({ sky, n }: { sky: Schemas["Sky"]; n: Schemas["SkyNow"] }) {
  const z = useZone();
  const age = useAge();
  return (
    <>
      <p className="soft mb-1">
        {n.air.source === "hand" ? "Read by hand" : "Report"}, {age(n.air.at)}, on file by {n.by}
        {n.air.raw && (
          <>
            : <span className="fig">{n.air.raw}</span>
          </>
        )}
      </p>
      {sky.late_at && (
        <p className="mb-1" role="status">
          What was entered last is of {z.both(sky.late_at)}: it is older, kept, and not used.
        </p>
      )}
      <dl className="tiles mb-2" style={tiles(150)}>
        <Fact name={`Wind at ${Math.round(n.height_m)} m`}>
          {n.wind_ms == null
            ? "not known"
            : `${n.wind_ms.toFixed(1)}, gusts ${n.gust_ms?.toFixed(1)} m/s${n.air.from_deg == null ? "" : ` from ${Math.round(n.air.from_deg)}°`}`}
        </Fact>
        <Fact name="Density altitude">{num(n.density_altitude_m, "m")}</Fact>
        <Fact name="Take-off mass today">{num(n.mass_limit_kg, "kg", 1)}</Fact>
        <Fact name="Under the cloud">{cloudWords(n)}</Fact>
        {n.air.source !== "hand" && (
          <Fact name="Ceiling">
            {n.ceiling_ft == null
              ? n.ceiling_known
                ? "none"
                : "not known"
              : `${n.ceiling_ft} ft above the station`}
          </Fact>
        )}
        <Fact name="Delta T">{num(n.delta_t, "°C", 1)}</Fact>
        <Fact name="Humidity">{num(n.humidity_percent, "%")}</Fact>
      </dl>
      {n.wind_notes.map((w) => (
        <p key={w} className="soft mb-1">
          {w}
        </p>
      ))}
      {sky.bad.length > 0 && (
        <p>
          Not read:{" "}
          {sky.bad.map((b) => (
            <span key={b.group}>
              <span className="fig">{b.group}</span> ({b.why}){" "}
            </span>
          ))}
        </p>
      )}
    </>
  );
}

/** When the sun rises and sets, and how long it stays light. */
export function SunLine({ day }: { day: NonNullable<Schemas["Sky"]["sun"]> }) {
  const z = useZone();
  return (
    <p className="mb-1">
      Sun: rise <span className="fig">{day.rise ? z.time(day.rise) : day.kind}</span>, set{" "}
      <span className="fig">{day.set ? z.time(day.set) : day.kind}</span>; civil twilight{" "}
      <span className="fig">
        {day.dawn ? z.time(day.dawn) : "none"}–{day.dusk ? z.time(day.dusk) : "none"}
      </span>
      .
    </p>
  );
}

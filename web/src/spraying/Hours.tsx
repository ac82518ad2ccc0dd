import { Flag, words } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { useZone } from "../parts/time";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";

/** The hours of the forecast, and how many passes may be sprayed in each. */
export function Hours({ p }: { p: Plan }) {
  const z = useZone();
  const u = useUnits();
  if (p.hours.length === 0) return null;
  return (
    <Sheet title="When">
      <div
        className="d-flex overflow-x-auto gap-1"
        tabIndex={0}
        role="group"
        aria-label="Hours of the forecast"
      >
        {p.hours.map((h) => (
          <div
            key={h.at}
            title={h.why}
            className="border text-center p-1 flex-shrink-0"
            style={{ width: 74 }}
          >
            <div className="fig">{z.time(h.at)}</div>
            <Flag verdict={h.verdict} size={16} />
            <span className="visually-hidden">{words[h.verdict]}</span>
            <div className="fig">
              {h.free} / {h.free + h.waiting}
            </div>
            <div className="soft">{h.wind_ms == null ? "wind ?" : u.show("speed", h.wind_ms)}</div>
          </div>
        ))}
      </div>
      <p className="soft mb-0">
        Passes that may be sprayed, of all: drift within {Math.round(p.buffer_m)} m of what is sensitive
        waits. Wind at the nozzles. A forecast is a forecast: the wind is measured before each flight.
      </p>
    </Sheet>
  );
}

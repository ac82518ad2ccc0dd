import { type Schemas } from "../api/client";
import { HourStrip } from "../drawings/HourStrip";
import { Sheet } from "../parts/Sheet";
import { useNow, useZone } from "../parts/time";
import { windows } from "./model";

/** The hours to come, as they are forecast. */
export function Hours({ sky, limit }: { sky: Schemas["Sky"]; limit?: number }) {
  const z = useZone();
  const now = useNow();
  if (sky.hours.length === 0) return null;
  const good = windows(sky.hours);
  return (
    <Sheet title="The hours to come">
      <HourStrip hours={sky.hours} clock={z.time} now={now} limit={limit} />
      <p className="mb-0">
        {good.length === 0
          ? "No hour without a Stop is in sight."
          : `Without a Stop: ${good.map(([a, b]) => `${z.time(a)}–${z.time(b)}`).join(", ")}.`}{" "}
        <span className="soft">A forecast is a plan; what is measured on the spot decides.</span>
      </p>
    </Sheet>
  );
}

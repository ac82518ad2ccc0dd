import type { Schemas } from "../api/client";
import { sideBox } from "./model";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import { useDrawn } from "../drawings/useDrawn";

const tall = 190;
const [left, top, foot] = [64, 26, 34];

/** A flight from the side: how high it flies along its way, over the ground there. */
export function MissionSide({ flight: f }: { flight: Schemas["MissionFlight"] }) {
  const u = useUnits();
  const { ref, width } = useDrawn({ width: 900, height: tall });
  const b = sideBox(f.side);
  const high = Math.max(b.high - b.low, 10) * 1.1;
  const x = (m: number) => left + ((width - left - 14) * m) / b.along;
  const y = (m: number) => tall - foot - ((tall - foot - top) * (m - b.low)) / high;
  const flown = f.side
    .map((s, i) => `${i ? "L" : "M"}${x(s.along_m).toFixed(1)} ${y(s.flown_m).toFixed(1)}`)
    .join("");
  const known = f.side.filter((s) => s.ground_m != null);
  const ground =
    known.length > 1
      ? `M${x(known[0]!.along_m)} ${y(b.low)}` +
        known.map((s) => `L${x(s.along_m).toFixed(1)} ${y(s.ground_m!).toFixed(1)}`).join("") +
        `L${x(known.at(-1)!.along_m)} ${y(b.low)}Z`
      : "";
  return (
    <Sheet title={`Flight ${f.number} from the side`}>
      <svg
        ref={ref}
        className="drawn"
        height={tall}
        viewBox={`0 0 ${width} ${tall}`}
        role="img"
        aria-label={`Flight ${f.number} from the side: elevations ${u.show("length", b.low)} to ${u.show("length", b.high)} over ${u.show("length", b.along)}`}
      >
        {ground && <path d={ground} className="area" />}
        <path d={flown} className="ink" />
        <text x={left - 8} y={y(b.high) + 5} textAnchor="end">
          {u.show("length", b.high)}
        </text>
        <text x={left - 8} y={y(b.low)} textAnchor="end">
          {u.show("length", b.low)}
        </text>
        <text x={width - 14} y={tall - 10} textAnchor="end">
          {u.show("length", b.along)} of way
        </text>
        <text x={left} y={tall - 10}>
          take-off
        </text>
      </svg>
      <p className="mb-0">
        {f.first} {ground ? "" : "The ground under it is not known."}
      </p>
    </Sheet>
  );
}

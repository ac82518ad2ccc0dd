import type { Schemas } from "../api/client";
import { bands } from "./model";
import type { Spot } from "../drawings/plane";

/** How often each cell of the ground was seen: the fuller, the darker; what was not seen stays empty. */
export function Overlap({ t, to }: { t: Schemas["PicturesTaken"]; to: (p: Schemas["Place"]) => Spot }) {
  const o = t.overlap;
  if (o.columns === 0 || o.views.length === 0) return null;
  const [x0, y0] = to(o.south_west);
  const [x1, y1] = to(o.north_east);
  const [w, h] = [(x1 - x0) / o.columns, (y0 - y1) / o.rows];
  return (
    <g className="dot">
      {bands(o.views, o.columns, t.views).map((b) => (
        <rect
          key={`${b.row}-${b.from}`}
          x={x0 + b.from * w}
          y={y0 - (b.row + 1) * h}
          width={(b.to - b.from) * w}
          height={h * 1.02}
          opacity={0.1 + 0.09 * b.level}
        />
      ))}
    </g>
  );
}

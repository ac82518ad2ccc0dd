import type { ReactElement } from "react";
import { ResponsiveContainer } from "recharts";

/** How axes of plots look: words as large as everywhere. */
export const axis = {
  stroke: "var(--bs-body-color)",
  tick: { fill: "var(--bs-body-color)", fontSize: 16 },
  tickLine: false,
} as const;

export const gridLines = { stroke: "var(--rule)" } as const;

/** How what is said of a point of a plot looks. */
export const tip = {
  isAnimationActive: false,
  contentStyle: { background: "var(--sheet)", border: "1px solid var(--bs-body-color)", fontSize: 16 },
  itemStyle: { color: "var(--bs-body-color)" },
  labelStyle: { color: "var(--bs-body-color)" },
  cursor: { fill: "var(--metal)", fillOpacity: 0.6 },
} as const;

/** Bars in ink, without movement. */
export const bar = { fill: "var(--solid)", isAnimationActive: false, maxBarSize: 26 } as const;

export interface PlotProps {
  /** What the plot shows, in words that carry it alone. */
  label: string;
  height: number;
  children: ReactElement;
}

/** A plot as wide as its place. */
export function Plot({ label, height, children }: PlotProps) {
  return (
    <div className="plot" role="img" aria-label={label}>
      <ResponsiveContainer width="100%" height={height}>
        {children}
      </ResponsiveContainer>
    </div>
  );
}

import type { Verdict } from "../parts/Flag";

export interface SparkProps {
  values: number[];
  /** The same scale for all that are compared. */
  most: number;
  verdict?: Verdict;
  width?: number;
  height?: number;
}

/** A short line of values about zero: how one motor stood to its sisters, flight by flight. */
export function Spark({ values, most, verdict = "clear", width = 120, height = 36 }: SparkProps) {
  const step = width / Math.max(values.length - 1, 1);
  const y = (v: number) => height / 2 - (Math.max(-most, Math.min(most, v)) / most) * (height / 2 - 2);
  const d = values
    .map((v, i) => `${i === 0 ? "M" : "L"}${(i * step).toFixed(1)} ${y(v).toFixed(1)}`)
    .join("");
  return (
    <svg className="drawn" width={width} height={height} aria-hidden="true" focusable="false">
      <path className="rule" d={`M0 ${height / 2}H${width}`} />
      <path
        className={verdict === "clear" ? "ink" : `s-${verdict}`}
        strokeWidth={verdict === "clear" ? 1.6 : 2.6}
        d={d}
      />
    </svg>
  );
}
